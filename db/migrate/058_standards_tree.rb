# frozen_string_literal: true

# Standards form a tree: what is under another belongs to it.
#
# parent:: code of the standard above it, "" of one at the top
Sequel.migration do
  change do
    add_column :standards, :parent, String, null: false, default: ""
  end
end

# frozen_string_literal: true

# A team has a drawing of its own, by number.
Sequel.migration do
  change { alter_table(:teams) { add_column :mark, :smallint, null: false, default: 0 } }
end

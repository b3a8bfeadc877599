# frozen_string_literal: true

# An assignment may be for some students only, each with slides of their own: what they missed.
Sequel.migration do
  change do
    alter_table(:assignments) { add_column :pieces, :jsonb }
  end
end

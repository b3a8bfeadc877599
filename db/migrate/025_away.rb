# frozen_string_literal: true

# Since when a seat's device is gone, or its window in the background.
Sequel.migration do
  change do
    alter_table(:seats) do
      add_column :left_at, "timestamptz"
      add_column :hidden_at, "timestamptz"
    end
  end
end

# frozen_string_literal: true

# The link with which the first account is made, printed where the program is started.
Sequel.migration do
  change do
    create_table(:set_up_keys) do
      String :digest, primary_key: true
      column :created_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
    end
  end
end

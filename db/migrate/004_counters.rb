# frozen_string_literal: true

# Short-lived counts for rate limits, shared by all web processes. Nothing is lost
# when they are, so the table is not written to the log.
Sequel.migration do
  change do
    create_table(:counters, unlogged: true) do
      String :key, primary_key: true
      Bignum :value, null: false
      column :expires_at, "timestamptz", null: false
      index :expires_at
    end
  end
end

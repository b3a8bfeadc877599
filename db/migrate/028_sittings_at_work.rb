# frozen_string_literal: true

# What the Desk has to know of sittings, so that it reads only those in which something is new; and they
# are found by their session, to end with it.
Sequel.migration do
  change do
    alter_table(:sittings) do
      add_column :seen, "text[]", null: false, default: Sequel.lit("'{}'")
      add_column :moved_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      add_index %i[session_id section_id]
    end
  end
end

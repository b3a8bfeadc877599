# frozen_string_literal: true

# What is known of a device's line: when it last answered a heartbeat, since when one waits for its
# answer, the last stretch in which the line was bad, and the last round trip in seconds. Of an answer:
# whether it came late by the line; which window wrote it; and what another window wrote, as typed.
Sequel.migration do
  change do
    alter_table(:seats) do
      add_column :heard_at, "timestamptz"
      add_column :asked_at, "timestamptz"
      add_column :bad_from, "timestamptz"
      add_column :bad_until, "timestamptz"
      add_column :round_trip, Float
    end

    alter_table(:answers) do
      add_column :by_line, TrueClass, null: false, default: false
      add_column :writer, :uuid
      add_column :beside, :jsonb
      add_constraint(:answers_by_line_in_time) { (by_line =~ false) | (late =~ false) }
    end
  end
end

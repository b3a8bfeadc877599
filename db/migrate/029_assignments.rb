# frozen_string_literal: true

# Sessions that each student goes through alone: what of the lesson, when, and by which rules; and for
# single students more time or another attempt. In such a session nothing is open to the room, so that
# only a student's own sitting lets an answer count.
Sequel.migration do
  change do
    alter_table(:sessions) { add_column :alone, TrueClass, null: false, default: false }

    create_table(:assignments) do
      foreign_key :session_id, :sessions, type: :Bignum, primary_key: true, on_delete: :cascade
      column :sections, "text[]", null: false, default: Sequel.lit("'{}'")
      column :opens_at, "timestamptz", null: false
      column :closes_at, "timestamptz", null: false
      column :rules, :jsonb, null: false
      column :unassigned_at, "timestamptz"
      constraint(:assignments_last) { closes_at > opens_at }
    end

    create_table(:allowances) do
      foreign_key :seat_id, :seats, type: :Bignum, primary_key: true, on_delete: :cascade
      column :closes_at, "timestamptz"
      Integer :attempts, null: false, default: 0
      constraint(:allowances_more) { attempts >= 0 }
    end
  end
end

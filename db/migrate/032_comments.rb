# frozen_string_literal: true

# What a teacher writes to a student about one answer.
Sequel.migration do
  change do
    create_table(:comments) do
      foreign_key :seat_id, :seats, type: :Bignum, on_delete: :cascade
      String :slide_id, text: true, null: false
      String :text, text: true, null: false
      column :written_at, "timestamptz", null: false, default: Sequel.function(:clock_timestamp)
      primary_key %i[seat_id slide_id]
    end
  end
end

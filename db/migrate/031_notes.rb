# frozen_string_literal: true

# What a student notes for themselves on a slide, saved as drafts of answers are: by which window, and over what.
Sequel.migration do
  change do
    create_table(:notes) do
      foreign_key :seat_id, :seats, type: :Bignum, on_delete: :cascade
      String :slide_id, text: true, null: false
      String :text, text: true, null: false
      Integer :save_no, null: false
      column :save_id, :uuid, null: false
      column :writer, :uuid
      column :noted_at, "timestamptz", null: false, default: Sequel.function(:clock_timestamp)
      primary_key %i[seat_id slide_id]
    end
  end
end

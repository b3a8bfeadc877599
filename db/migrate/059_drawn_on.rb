# frozen_string_literal: true

# What a teacher drew over an answer that is a drawing: kept beside it, never in it. Students see it with the marks of that
# question.
Sequel.migration do
  change do
    create_table(:drawn_on) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      Integer :attempt, null: false
      column :strokes, :jsonb, null: false
      column :drawn_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      primary_key %i[seat_id slide_id attempt]
      index :session_id
    end
  end
end

# frozen_string_literal: true

# Marks that teachers give by hand, a row a seat, question and attempt, exactly; and of which questions students see them.
# evidence.told:: whether the student may know of the mark
# seat_results.waiting:: answers that are still to be marked by hand
# seat_results.told:: as far as the student may know, where that is something else: share, right, marked, points
Sequel.migration do
  up do
    create_table(:hand_marks) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      Integer :attempt, null: false
      Integer :mark_num, null: false
      Integer :mark_den, null: false
      foreign_key :account_id, :accounts, type: :Bignum, on_delete: :set_null
      column :marked_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      primary_key %i[seat_id slide_id attempt]
      index :session_id
      index :account_id
      check { (mark_num >= 0) & (mark_den > 0) & (mark_num <= mark_den) }
    end

    create_table(:released_marks) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      primary_key %i[session_id slide_id]
    end

    add_column :evidence, :told, TrueClass, null: false, default: true
    add_column :seat_results, :told, :jsonb
    add_column :seat_results, :waiting, Integer, null: false, default: 0
  end

  down do
    drop_column :seat_results, :waiting
    drop_column :seat_results, :told
    drop_column :evidence, :told
    drop_table :released_marks, :hand_marks
  end
end

# frozen_string_literal: true

# Marks by the levels of a rubric; words that a teacher stamps answers with; and colleagues who mark the same answers.
#
# hand_marks.levels:: of the question's rubric, a place each criterion; NULL where the mark was given directly
# stamps.mark:: the mark that comes with the words ("3/4"), or NULL
Sequel.migration do
  up do
    add_column :hand_marks, :levels, "integer[]"

    create_table(:stamps) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :words, null: false
      String :mark
      index :account_id
    end

    create_table(:second_markers) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      primary_key %i[session_id slide_id account_id]
      index :account_id
    end

    create_table(:second_marks) do
      Bignum :session_id, null: false
      String :slide_id, null: false
      Bignum :account_id, null: false
      foreign_key %i[session_id slide_id account_id], :second_markers, on_delete: :cascade
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      Integer :attempt, null: false
      Integer :mark_num, null: false
      Integer :mark_den, null: false
      column :levels, "integer[]"
      primary_key %i[seat_id slide_id attempt account_id]
      index %i[session_id slide_id account_id]
      check { (mark_num >= 0) & (mark_den > 0) & (mark_num <= mark_den) }
    end
  end

  down do
    drop_table :second_marks, :second_markers, :stamps
    drop_column :hand_marks, :levels
  end
end

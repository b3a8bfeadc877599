# frozen_string_literal: true

# What a teacher has said about the grades of a class (rules.md, grades): how they are put together, columns of her own (an oral
# mark, a test on paper), who is excused; and every change of that.
#
# gradebooks.weight, dropped:: of what is in no category; of_all:: by all questions that were asked rather than by those reached
# gradebooks.by_column:: each column counts alike, however many questions it has
# grade_columns.session_id:: of which session it is, NULL of an own one; possible:: points of an own one
# grade_columns.absent_zero:: who was not there earned nothing of it, rather than being left out
# grade_entries.points:: of an own column, NULL where only :excused stands
# grade_changes.about:: what was changed; before, after:: in words, "" of nothing
# seat_results.late:: answers that came late and don't count
# school.grade_table:: names of grades with the percent they begin at, a line each; "" where grades are numbers
Sequel.migration do
  up do
    create_table(:gradebooks) do
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :class_id, :classes, type: :Bignum, null: false, on_delete: :cascade
      column :weight, "numeric(6,2)", null: false, default: 1
      Integer :dropped, null: false, default: 0
      TrueClass :of_all, null: false, default: false
      TrueClass :by_column, null: false, default: false
      primary_key %i[account_id class_id]
      index :class_id
      check { (weight >= 0) & (dropped >= 0) }
    end

    create_table(:grade_categories) do
      primary_key :id, type: :Bignum
      Bignum :account_id, null: false
      Bignum :class_id, null: false
      foreign_key %i[account_id class_id], :gradebooks, on_delete: :cascade
      String :name, null: false
      column :weight, "numeric(6,2)", null: false, default: 1
      Integer :dropped, null: false, default: 0
      index %i[account_id class_id]
      check { (weight >= 0) & (dropped >= 0) }
    end

    create_table(:grade_columns) do
      primary_key :id, type: :Bignum
      Bignum :account_id, null: false
      Bignum :class_id, null: false
      foreign_key %i[account_id class_id], :gradebooks, on_delete: :cascade
      foreign_key :session_id, :sessions, type: :Bignum, on_delete: :cascade
      foreign_key :category_id, :grade_categories, type: :Bignum, on_delete: :set_null
      String :title, null: false, default: ""
      Date :on_date
      column :possible, "numeric(7,2)"
      column :weight, "numeric(6,2)", null: false, default: 1
      TrueClass :absent_zero, null: false, default: false
      column :deleted_at, "timestamptz"
      unique %i[account_id class_id session_id]
      index :session_id
      index :category_id
      check { (weight >= 0) & ((session_id !~ nil) | ((possible > 0) & (on_date !~ nil))) }
    end

    create_table(:grade_entries) do
      foreign_key :column_id, :grade_columns, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :student_id, :students, type: :Bignum, null: false, on_delete: :cascade
      column :points, "numeric(7,2)"
      TrueClass :excused, null: false, default: false
      primary_key %i[column_id student_id]
      index :student_id
      check { Sequel.|(:excused, points >= 0) }
    end

    create_table(:grade_changes) do
      primary_key :id, type: :Bignum
      Bignum :account_id, null: false
      Bignum :class_id, null: false
      foreign_key %i[account_id class_id], :gradebooks, on_delete: :cascade
      foreign_key :column_id, :grade_columns, type: :Bignum, on_delete: :set_null
      foreign_key :student_id, :students, type: :Bignum, on_delete: :cascade
      foreign_key :by_id, :accounts, type: :Bignum, on_delete: :set_null
      String :about, null: false
      String :column_title, null: false, default: ""
      String :before, null: false
      String :after, null: false
      column :changed_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      index %i[account_id class_id id]
      index :column_id
      index :student_id
      index :by_id
    end

    add_column :seat_results, :late, Integer, null: false, default: 0
    add_column :school, :grade_table, String, null: false, default: ""
    # Those with late answers say so when somebody looks next.
    from(:sessions).where(id: from(:answers).where(late: true, let_count: false).select(:session_id)).update(evidence_no: nil)
  end

  down do
    drop_column :school, :grade_table
    drop_column :seat_results, :late
    drop_table :grade_changes, :grade_entries, :grade_columns, :grade_categories, :gradebooks
  end
end

# frozen_string_literal: true

# Who looked at what is kept about a student, and who changed a mark, for the keeper.
#
# what:: :page (of a student), :results (of theirs in a session), :record (all that is kept), :mark, :grade or :removed
# said:: more of it, such as the title of a session
Sequel.migration do
  change do
    create_table(:looked_at) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, on_delete: :set_null
      foreign_key :student_id, :students, type: :Bignum, null: false, on_delete: :cascade
      String :what, null: false
      String :said, null: false, default: ""
      column :at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      index %i[student_id id]
      index :account_id
      index :at
    end
  end
end

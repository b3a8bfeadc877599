# frozen_string_literal: true

# What a class gave to closing questions (what it thought of the lesson), a row a session and question, without names. Written
# with evidence.
#
# given:: [[what was said, by how many]], the commonest first
Sequel.migration do
  change do
    create_table(:closing_results) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      String :asked, null: false
      Integer :students, null: false
      column :given, :jsonb, null: false
      primary_key %i[session_id slide_id]
    end
  end
end

# frozen_string_literal: true

# What the teacher draws over slides and on blank boards, in parts as it comes in.
Sequel.migration do
  change do
    create_table(:ink) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :page, null: false
      String :stroke, null: false
      Integer :part, null: false
      primary_key %i[session_id stroke part]
      column :arrival, :Bignum, null: false, default: Sequel.lit("nextval('answers_seq')")
      Integer :colour, null: false
      Integer :width, null: false
      column :points, "integer[]", null: false
      column :erased_at, "timestamptz"
      index %i[session_id page arrival]
    end
  end
end

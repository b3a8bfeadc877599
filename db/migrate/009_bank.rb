# frozen_string_literal: true

# The question bank: copies of slides with a question, kept apart from any lesson. And
# lists of learning standards, a teacher's own or open to all here.
Sequel.migration do
  change do
    create_table(:bank_questions) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      column :document, :jsonb, null: false
      String :taken_from, null: false, default: ""
      column :search, :tsvector
      column :subtopics, "text[]", null: false, default: Sequel.lit("'{}'")
      column :standards, "text[]", null: false, default: Sequel.lit("'{}'")
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :deleted_at, "timestamptz"
      index %i[account_id created_at]
      index :search, type: :gin
    end

    create_table(:standards) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      TrueClass :for_all, null: false, default: false
      String :code, null: false
      String :words, null: false
      String :subject, null: false, default: ""
      String :level, null: false, default: ""
      unique %i[account_id code]
      constraint(:standards_code_there, Sequel.lit("code <> ''"))
    end
  end
end

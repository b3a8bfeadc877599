# frozen_string_literal: true

# Lessons are documents; every save leaves a revision. Media are kept by content.
Sequel.migration do
  change do
    create_table(:lessons) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      column :document, :jsonb, null: false
      Integer :revision, null: false, default: 1
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :updated_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :deleted_at, "timestamptz"
      index %i[account_id updated_at]
      constraint(:lessons_revision_positive) { revision > 0 }
    end

    create_table(:lesson_revisions) do
      foreign_key :lesson_id, :lessons, type: :Bignum, null: false, on_delete: :cascade
      Integer :number, null: false
      column :document, :jsonb, null: false
      Integer :restored_from
      foreign_key :account_id, :accounts, type: :Bignum, on_delete: :set_null
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      primary_key %i[lesson_id number]
    end

    create_table(:media) do
      String :file, primary_key: true
      String :mime, null: false
      Integer :width, null: false
      Integer :height, null: false
      Integer :bytes, null: false
      foreign_key :account_id, :accounts, type: :Bignum, on_delete: :set_null
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      constraint(:media_file_shape, Sequel.lit("file ~ '^[0-9a-f]{64}\\.(png|jpg|svg)$'"))
    end
  end
end

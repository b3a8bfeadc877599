# frozen_string_literal: true

# Sheets of passes that are being drawn, or lie ready for the teacher who asked.
#
# state:: "drawing", then "ready" or "failed"
# done::  pages that are drawn, of pages
Sequel.migration do
  change do
    create_table(:pass_sheets) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :class_id, :classes, type: :Bignum, null: false, on_delete: :cascade
      String :state, null: false, default: "drawing"
      Integer :pages, null: false
      Integer :done, null: false, default: 0
      column :created_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      unique %i[account_id class_id]
      index :class_id
      constraint(:pass_sheets_state_known, state: %w[drawing ready failed])
    end
  end
end

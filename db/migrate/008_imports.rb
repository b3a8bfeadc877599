# frozen_string_literal: true

require "que"

# Work in the background (que's own tables), and the files of slides that are coming in.
#
# state:: "coming" while pages are added, then "done", "failed" (with the reason) or "stopped"
# done::  pages that are slides already
Sequel.migration do
  up do
    Que.connection = self
    Que.migrate!(version: 7)
    create_table(:imports) do
      primary_key :id, type: :Bignum
      foreign_key :lesson_id, :lessons, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      String :file, null: false
      String :after_slide
      String :state, null: false, default: "coming"
      Integer :pages
      Integer :done, null: false, default: 0
      String :reason
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :ended_at, "timestamptz"
      index :lesson_id
      constraint(:imports_state_known, state: %w[coming done failed stopped])
      constraint(:imports_done_within, Sequel.lit("done >= 0 AND (pages IS NULL OR done <= pages)"))
    end
  end

  down do
    drop_table(:imports)
    Que.connection = self
    Que.migrate!(version: 0)
  end
end

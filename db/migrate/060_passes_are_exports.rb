# frozen_string_literal: true

require "fileutils"

# Sheets of passes are made as other files are (exports). What was drawn within the last hour goes, since nothing else would take
# it away, and is drawn again.
Sequel.migration do
  up do
    drop_table :pass_sheets
    from(:que_jobs).where(job_class: %w[Roost::Jobs::DrawPasses Roost::Jobs::ForgetPasses]).delete
    FileUtils.rm_f(Dir[Roost.settings.var("passes", "*")])
  end

  down do
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

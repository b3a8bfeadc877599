# frozen_string_literal: true

# Files that are made in the background, of each teacher and thing the latest. Kept for an hour.
#
# kind:: of file (Operations::MakeExport::MAKERS); subject_id:: of what; parts, done:: of the work
Sequel.migration do
  change do
    create_table(:exports) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :kind, null: false
      Bignum :subject_id, null: false
      String :state, null: false, default: "making"
      Integer :parts, null: false, default: 1
      Integer :done, null: false, default: 0
      column :created_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      unique %i[account_id kind subject_id]
      constraint(:exports_state_known, state: %w[making ready failed])
    end
  end
end

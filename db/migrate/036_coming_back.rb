# frozen_string_literal: true

# Coming back: a number with which a student opens their seat on another device; the tokens a seat had before, so that what
# waits on the earlier device is still taken; which devices a seat was opened on. Names that wait for the teacher are known by
# their device. Text that could not be taken as an answer and was sent to the teacher as it was typed.
Sequel.migration do
  change do
    alter_table(:seats) { add_column :number, "char(4)" }

    create_table(:former_tokens) do
      column :token_digest, :bytea, primary_key: true
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      column :moved_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      index :seat_id
    end

    create_table(:seat_devices) do
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      String :device, null: false
      String :browser, null: false, default: ""
      column :first_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      column :last_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      primary_key %i[seat_id device]
    end

    alter_table(:stopped_names) { add_column :device, String, null: false, default: "" }

    create_table(:sent_texts) do
      primary_key :id, type: :Bignum
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      String :text, null: false
      column :sent_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      unique %i[seat_id slide_id text]
    end
  end
end

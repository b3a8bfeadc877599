# frozen_string_literal: true

# Receivers of handheld keypads that a teacher has let into a session, and which seat a keypad is.
Sequel.migration do
  change do
    create_table(:receivers) do
      primary_key :id, type: :Bignum
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      column :token_digest, :bytea, null: false, unique: true
      column :created_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      column :allowed_at, "timestamptz"
      column :refused_at, "timestamptz"
      index :session_id
    end

    alter_table(:seats) do
      add_column :keypad, String
      add_column :battery_low, TrueClass, null: false, default: false
      add_index %i[session_id keypad], unique: true, name: :seats_keypad_once, where: Sequel.lit("removed_at IS NULL")
    end
  end
end

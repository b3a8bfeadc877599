# frozen_string_literal: true

# Signing in: which sign-ins of a teacher stand (a cookie is good for nothing without one), from
# which addresses she has signed in, and accounts that wait for the link in their mail to be opened.
Sequel.migration do
  up do
    create_table(:account_active_session_keys) do
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :session_id, null: false
      String :device, null: false, default: ""
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :last_use, "timestamptz", null: false, default: Sequel.lit("now()")
      primary_key %i[account_id session_id]
    end

    create_table(:sign_in_addresses) do
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :digest, null: false
      column :last_at, "timestamptz", null: false, default: Sequel.lit("now()")
      primary_key %i[account_id digest]
    end

    create_table(:sign_ups) do
      String :digest, primary_key: true
      String :email, null: false
      String :name, null: false
      String :password_hash, null: false
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      index :created_at
    end

    drop_table(:account_login_failures, :account_lockouts)
  end

  down do
    drop_table(:sign_ups, :sign_in_addresses, :account_active_session_keys)
    create_table(:account_login_failures) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      Integer :number, null: false, default: 1
    end
    create_table(:account_lockouts) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      String :key, null: false
      column :deadline, "timestamptz", null: false
      column :email_last_sent, "timestamptz"
    end
  end
end

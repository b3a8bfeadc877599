# frozen_string_literal: true

# Teachers' accounts and what Rodauth keeps about them, and the mail outbox.
Sequel.migration do
  change do
    create_table(:accounts) do
      primary_key :id, type: :Bignum
      String :email, null: false
      String :name, null: false
      String :password_hash
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      index Sequel.function(:lower, :email), unique: true, name: :accounts_email_unique
      constraint(:accounts_email_shape, Sequel.lit("email ~ '^[^,;@ ]+@[^,@; ]+$'"))
    end

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

    create_table(:account_password_reset_keys) do
      foreign_key :id, :accounts, primary_key: true, type: :Bignum, on_delete: :cascade
      String :key, null: false
      column :deadline, "timestamptz", null: false
      column :email_last_sent, "timestamptz", null: false, default: Sequel.lit("now()")
    end

    create_table(:outbox_mails) do
      primary_key :id, type: :Bignum
      String :recipient, null: false
      String :subject, null: false
      String :body, null: false, text: true
      column :sent_at, "timestamptz", null: false, default: Sequel.lit("now()")
    end
  end
end

# frozen_string_literal: true

# One occasion on which a lesson is given: the frozen lesson, who sits in it, what
# they answered, when each question reached them, and every command with its author.
Sequel.migration do
  up do
    create_table(:sessions) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :lesson_id, :lessons, type: :Bignum, on_delete: :set_null
      String :title, null: false
      String :class_name, null: false, default: ""
      column :code, "char(6)", null: false
      String :screen_key, null: false, unique: true
      column :lesson, :jsonb, null: false
      Integer :lesson_version, null: false, default: 1
      column :options, :jsonb, null: false
      column :state, :jsonb, null: false
      Integer :version, null: false, default: 1
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :ended_at, "timestamptz"
      column :deleted_at, "timestamptz"
      index %i[account_id created_at]
      index :code, unique: true, where: { ended_at: nil }, name: :sessions_open_code_unique
      index :code, name: :sessions_code
    end

    create_table(:seats) do
      primary_key :id, type: :Bignum
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      column :token_digest, :bytea, null: false, unique: true
      TrueClass :practice, null: false, default: false
      column :joined_at, "timestamptz", null: false, default: Sequel.lit("now()")
      String :stream_key
      column :seen_at, "timestamptz"
      unique %i[session_id id]
      index [:session_id, Sequel.function(:lower, :name)], unique: true, name: :seats_name_unique
    end

    run "CREATE SEQUENCE answers_seq"

    create_table(:answers) do
      primary_key :id, type: :Bignum
      Bignum :session_id, null: false
      Bignum :seat_id, null: false
      String :slide_id, null: false
      Integer :attempt, null: false, default: 1
      column :value, :jsonb, null: false
      TrueClass :final, null: false
      TrueClass :late, null: false
      Integer :save_no, null: false
      column :save_id, :uuid, null: false
      column :received_at, "timestamptz", null: false
      Bignum :seq, null: false, default: Sequel.lit("nextval('answers_seq')")
      foreign_key %i[session_id seat_id], :seats, key: %i[session_id id], on_delete: :cascade
      unique %i[seat_id slide_id attempt]
      index %i[session_id seq]
    end

    create_table(:deliveries) do
      Bignum :session_id, null: false
      Bignum :seat_id, null: false
      String :slide_id, null: false
      column :sent_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      primary_key %i[seat_id slide_id]
      foreign_key %i[session_id seat_id], :seats, key: %i[session_id id], on_delete: :cascade
      index :session_id
    end

    create_table(:session_events) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      Integer :version, null: false
      String :command, null: false
      column :arguments, :jsonb, null: false
      foreign_key :account_id, :accounts, type: :Bignum, on_delete: :set_null
      column :at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      primary_key %i[session_id version]
    end
  end

  down do
    drop_table :session_events, :deliveries, :answers
    run "DROP SEQUENCE answers_seq"
    drop_table :seats, :sessions
  end
end

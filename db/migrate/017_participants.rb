# frozen_string_literal: true

# People: classes, students, who is in which class; seats may belong to a student and to a team. Who was
# in which team when a question opened. One student going through slides at their own speed: sittings,
# and the visits to their slides. Answers know what they were judged by.
Sequel.migration do
  change do
    create_table(:students) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      String :shown_name, null: false
      String :number
      column :time_factor, "numeric(3,2)", null: false, default: 1
      String :notes, null: false, default: ""
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :deleted_at, "timestamptz"
      constraint(:students_named) { (char_length(name) > 0) & (char_length(shown_name) > 0) }
      constraint(:students_time_factor, time_factor: [1, 1.25, 1.5, 2])
      index :account_id
    end

    create_table(:classes) do
      primary_key :id, type: :Bignum
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      String :subject, null: false, default: ""
      String :year, null: false, default: ""
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
      column :archived_at, "timestamptz"
      column :deleted_at, "timestamptz"
      constraint(:classes_named) { char_length(name) > 0 }
      index :account_id
    end

    create_table(:class_teachers) do
      foreign_key :class_id, :classes, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      primary_key %i[class_id account_id]
      index :account_id
    end

    create_table(:enrolments) do
      foreign_key :class_id, :classes, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :student_id, :students, type: :Bignum, null: false, on_delete: :cascade
      column :began_on, :date, null: false, default: Sequel.lit("current_date")
      column :ended_on, :date
      primary_key %i[class_id student_id]
      constraint(:enrolments_in_order) { (ended_on =~ nil) | (ended_on >= began_on) }
      index :student_id
    end

    create_table(:teams) do
      primary_key :id, type: :Bignum
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      unique %i[session_id name]
      unique %i[session_id id]
    end

    alter_table(:seats) do
      add_foreign_key :student_id, :students, type: :Bignum, on_delete: :set_null
      add_column :team_id, :Bignum
      add_column :removed_at, "timestamptz"
      add_foreign_key %i[session_id team_id], :teams, key: %i[session_id id], name: :seats_team_of_session
      add_index %i[session_id student_id], unique: true, name: :seats_student_once, where: Sequel.lit("removed_at IS NULL")
    end

    create_table(:opening_teams) do
      Bignum :session_id, null: false
      String :slide_id, null: false
      Integer :attempt, null: false
      Bignum :seat_id, null: false
      Bignum :team_id, null: false
      primary_key %i[session_id slide_id attempt seat_id]
      foreign_key %i[session_id slide_id attempt], :openings, on_delete: :cascade
      foreign_key %i[session_id seat_id], :seats, key: %i[session_id id], on_delete: :cascade
      foreign_key %i[session_id team_id], :teams, key: %i[session_id id], on_delete: :cascade
    end

    create_table(:sittings) do
      primary_key :id, type: :Bignum
      Bignum :session_id, null: false
      Bignum :seat_id, null: false
      String :section_id, null: false # "" is the whole lesson
      Integer :attempt, null: false
      column :slides, "text[]", null: false
      Integer :place, null: false
      Integer :first_open, null: false
      Integer :last_open, null: false
      column :rules, :jsonb, null: false
      column :started_at, "timestamptz", null: false
      column :deadline, "timestamptz"
      column :window_ends_at, "timestamptz"
      column :handed_in_at, "timestamptz"
      foreign_key %i[session_id seat_id], :seats, key: %i[session_id id], on_delete: :cascade
      unique %i[seat_id section_id attempt]
      constraint(:sittings_attempt_counts) { attempt > 0 }
      constraint(:sittings_somewhere) { array_length(slides, 1) > 0 }
      constraint(:sittings_places) { (first_open > 0) & (last_open >= first_open) & (last_open <= array_length(slides, 1)) }
    end

    create_table(:visits) do
      primary_key :id, type: :Bignum
      foreign_key :sitting_id, :sittings, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      column :began_at, "timestamptz", null: false
      column :seen_at, "timestamptz", null: false
      column :ended_at, "timestamptz"
      index :sitting_id
    end

    alter_table(:answers) do
      add_column :keyed, TrueClass, null: false, default: false
      add_column :changeable, TrueClass, null: false, default: true
      add_column :over, "uuid[]", null: false, default: Sequel.lit("'{}'")
    end
  end
end

# frozen_string_literal: true

# What settles an answer: that the room, or one seat, was told how it went. When a question's clock began, since when it is
# closed for all but those with extra time, and how much of that a seat has, as long as its session runs. That a late answer
# counts all the same. Sessions of before a question could be passed over keep the rules of then: their state has no room.
Sequel.migration do
  up do
    alter_table(:openings) do
      add_column :clock_at, "timestamptz"
      add_column :most_at, "timestamptz"
      add_column :told_at, "timestamptz"
      add_column :key_at, "timestamptz"
    end

    create_table(:tellings) do
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      Integer :attempt, null: false
      column :told_at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      primary_key %i[seat_id slide_id attempt]
    end

    alter_table(:seats) do
      add_column :time_factor, "numeric(3,2)", null: false, default: 1
      add_constraint(:seats_time_factor, time_factor: [1, 1.25, 1.5, 2])
    end
    run <<~SQL
      UPDATE seats SET time_factor = students.time_factor FROM students, sessions
      WHERE students.id = seats.student_id AND sessions.id = seats.session_id AND sessions.ended_at IS NULL
    SQL

    alter_table(:answers) { add_column :let_count, TrueClass, null: false, default: false }
    run "UPDATE sessions SET options = options || '{\"rules_version\": 0}' WHERE NOT state ? 'room_for'"
  end

  down do
    run "UPDATE sessions SET options = options - 'rules_version'"
    alter_table(:answers) { drop_column :let_count }
    alter_table(:seats) do
      drop_constraint :seats_time_factor
      drop_column :time_factor
    end
    drop_table :tellings
    alter_table(:openings) do
      drop_column :key_at
      drop_column :told_at
      drop_column :most_at
      drop_column :clock_at
    end
  end
end

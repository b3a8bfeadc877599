# frozen_string_literal: true

# That a question was open is a row of its own, once for each attempt, in place of an entry in the
# session's state. What was sent to whom belongs to an attempt, too.
Sequel.migration do
  up do
    create_table(:openings) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      Integer :attempt, null: false
      column :opened_at, "timestamptz", null: false
      column :deadline, "timestamptz"
      column :closed_at, "timestamptz"
      primary_key %i[session_id slide_id attempt]
      constraint(:openings_attempt_counts) { attempt > 0 }
    end

    run <<~SQL
      INSERT INTO openings (session_id, slide_id, attempt, opened_at, deadline, closed_at)
      SELECT sessions.id, run.key, 1, to_timestamp((run.value->>'opened_at')::float8),
             to_timestamp((run.value->>'deadline')::float8), to_timestamp((run.value->>'closed_at')::float8)
      FROM sessions, jsonb_each(sessions.state->'runs') AS run
    SQL
    run "UPDATE sessions SET state = state - 'runs'"

    alter_table(:deliveries) do
      add_column :attempt, Integer, null: false, default: 1
      drop_constraint :deliveries_pkey
      add_primary_key %i[seat_id slide_id attempt]
    end
  end

  down do
    run <<~SQL
      UPDATE sessions SET state = state || jsonb_build_object('runs', COALESCE(
        (SELECT jsonb_object_agg(slide_id, jsonb_build_object('opened_at', date_part('epoch', opened_at),
                                                              'deadline', date_part('epoch', deadline),
                                                              'closed_at', date_part('epoch', closed_at)))
         FROM openings WHERE session_id = sessions.id AND attempt = 1), '{}'))
    SQL
    drop_table :openings

    run "DELETE FROM deliveries WHERE attempt > 1"
    alter_table(:deliveries) do
      drop_constraint :deliveries_pkey
      add_primary_key %i[seat_id slide_id]
      drop_column :attempt
    end
  end
end

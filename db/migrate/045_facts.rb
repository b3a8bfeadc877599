# frozen_string_literal: true

# What was done about the questions of a session (set aside, sorted, told to talk in pairs) is rows of its own, in place of
# entries in the session's state. Notes and comments belong to an attempt, as answers do.
Sequel.migration do
  up do
    create_table(:questions_set_aside) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      column :at, "timestamptz", null: false, default: Sequel.function(:clock_timestamp)
      primary_key %i[session_id slide_id]
    end

    create_table(:curations) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      %i[removed approved pinned].each { |list| column list, "text[]", null: false, default: Sequel.lit("'{}'") }
      %i[columns own].each { |hash| column hash, :jsonb, null: false, default: Sequel.lit("'{}'") }
      column :at, "timestamptz", null: false, default: Sequel.function(:clock_timestamp)
      primary_key %i[session_id slide_id]
    end

    create_table(:pair_rounds) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      Integer :number, null: false
      column :groups, :jsonb, null: false
      column :at, "timestamptz", null: false, default: Sequel.function(:clock_timestamp)
      primary_key %i[session_id number]
    end

    run <<~SQL
      INSERT INTO questions_set_aside (session_id, slide_id)
      SELECT DISTINCT id, jsonb_array_elements_text(state->'aside') FROM sessions
    SQL
    run <<~SQL
      INSERT INTO curations (session_id, slide_id, removed, approved, pinned, columns, own)
      SELECT sessions.id, slide.key,
             ARRAY(SELECT jsonb_array_elements_text(COALESCE(slide.value->'removed', '[]'))),
             ARRAY(SELECT jsonb_array_elements_text(COALESCE(slide.value->'approved', '[]'))),
             ARRAY(SELECT jsonb_array_elements_text(COALESCE(slide.value->'pinned', '[]'))),
             COALESCE(slide.value->'columns', '{}'), COALESCE(slide.value->'own', '{}')
      FROM sessions, jsonb_each(sessions.state->'curated') AS slide
    SQL
    run <<~SQL
      INSERT INTO pair_rounds (session_id, number, groups)
      SELECT sessions.id, round.number, round.groups
      FROM sessions, jsonb_array_elements(sessions.state->'pairs') WITH ORDINALITY AS round(groups, number)
    SQL
    run "UPDATE sessions SET state = state - 'aside' - 'curated' - 'pairs'"

    %i[notes comments].each do |table|
      alter_table(table) do
        add_column :attempt, Integer, null: false, default: 1
        drop_constraint :"#{table}_pkey"
        add_primary_key %i[seat_id slide_id attempt]
      end
    end
  end

  down do
    run <<~SQL
      UPDATE sessions SET state = state || jsonb_build_object(
        'aside', COALESCE((SELECT jsonb_agg(slide_id ORDER BY at) FROM questions_set_aside WHERE session_id = sessions.id), '[]'),
        'curated', COALESCE((SELECT jsonb_object_agg(slide_id, jsonb_build_object(
                                      'removed', to_jsonb(removed), 'approved', to_jsonb(approved), 'pinned', to_jsonb(pinned),
                                      'columns', columns, 'own', own))
                             FROM curations WHERE session_id = sessions.id), '{}'),
        'pairs', COALESCE((SELECT jsonb_agg(groups ORDER BY number) FROM pair_rounds WHERE session_id = sessions.id), '[]'))
    SQL
    drop_table :pair_rounds, :curations, :questions_set_aside

    %i[notes comments].each do |table|
      run "DELETE FROM #{table} AS earlier USING #{table} AS later WHERE earlier.seat_id = later.seat_id
           AND earlier.slide_id = later.slide_id AND earlier.attempt < later.attempt"
      alter_table(table) do
        drop_constraint :"#{table}_pkey"
        add_primary_key %i[seat_id slide_id]
        drop_column :attempt
      end
    end
  end
end

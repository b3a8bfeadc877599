# frozen_string_literal: true

# A game round may be played several times, each time in a style; and a team may play without a device.
Sequel.migration do
  change do
    create_table(:round_plays) do
      foreign_key :session_id, :sessions, null: false, type: :bigint, on_delete: :cascade
      String :section_id, null: false
      Integer :number, null: false
      column :slide_ids, "text[]", null: false
      String :style, null: false
      Float :speed, null: false
      Float :goal, null: false
      String :answering, null: false
      Integer :talk, null: false
      column :began_at, "timestamptz", null: false
      primary_key %i[session_id section_id number]
      constraint(:round_plays_number, Sequel.lit("number >= 1"))
      constraint(:round_plays_speed, Sequel.lit("speed BETWEEN 0 AND 0.5"))
      constraint(:round_plays_goal, Sequel.lit("goal > 0 AND goal <= 1"))
    end

    alter_table(:openings) { add_column :play, Integer }
    alter_table(:answers) do
      add_column :sure, :smallint
      add_column :entered, TrueClass, null: false, default: false
      add_constraint(:answers_sure, Sequel.lit("sure BETWEEN 1 AND 3"))
    end
    alter_table(:seats) { add_column :board, TrueClass, null: false, default: false }
  end
end

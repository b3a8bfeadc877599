# frozen_string_literal: true

# What was earned in sessions that have ended, a row a seat and question, so that whoever looks across sessions need not read what
# was given in each (rules.md, who has it). Written when a session ends, and again when what it shows has changed.
#
# results_no:: counts what changes how a session went; evidence_no:: of the one the evidence is of, nil where there is none
# evidenced_at:: when it was written
# mark_num, mark_den:: the mark, exactly; counts:: whether it was no practice question; tags as they stood
# share:: exactly, as text ("2/3"); NULL where nothing was marked
Sequel.migration do
  up do
    alter_table(:sessions) do
      add_column :results_no, Integer, null: false, default: 0
      add_column :evidence_no, Integer
      add_column :evidenced_at, "timestamptz"
    end

    create_table(:evidence) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      Integer :attempt, null: false
      String :origin, null: false
      Integer :mark_num, null: false
      Integer :mark_den, null: false
      Integer :weight, null: false
      Float :seconds
      TrueClass :counts, null: false
      column :tags, "text[]", null: false
      primary_key %i[seat_id slide_id]
      index :session_id
      index :origin
    end

    create_table(:seat_results) do
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade, primary_key: true
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :share
      Integer :right, null: false
      Integer :marked, null: false
      Integer :points
      index :session_id
    end
  end

  down do
    drop_table :seat_results, :evidence
    alter_table(:sessions) do
      drop_column :evidenced_at
      drop_column :evidence_no
      drop_column :results_no
    end
  end
end

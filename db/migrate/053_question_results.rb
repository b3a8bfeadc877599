# frozen_string_literal: true

# How each question that counts went in each session that has ended, so that one can look at the same question over sessions and
# classes. Written with evidence.
#
# students:: who reached it; earned:: sum of their marks, exactly, as text; discrimination:: NULL where there is none
# classes.shares_figures:: whether colleagues see how questions went in it, without names
Sequel.migration do
  up do
    create_table(:question_results) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :slide_id, null: false
      String :origin, null: false
      Integer :students, null: false
      String :earned, null: false
      Float :discrimination
      primary_key %i[session_id slide_id]
      index :origin
      check { students > 0 }
    end
    add_column :classes, :shares_figures, TrueClass, null: false, default: false
    # Written anew in the background, and sooner by whoever looks.
    from(:sessions).exclude(evidence_no: nil).update(evidence_no: nil)
    run <<~SQL
      INSERT INTO que_jobs (job_class, args, kwargs, job_schema_version)
      SELECT 'Roost::Jobs::WriteEvidence', jsonb_build_array(id), '{}', 2
      FROM sessions WHERE ended_at IS NOT NULL AND deleted_at IS NULL
    SQL
  end

  down do
    drop_column :classes, :shares_figures
    drop_table :question_results
  end
end

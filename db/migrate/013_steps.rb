# frozen_string_literal: true

# Saves of one field that follow each other are one step of the history; a change that touched two
# lessons is known in both; and what was undone can be done again.
#
# step::   number of the first revision of the step
# field::  what the revision changed, when that was one field
# moved::  {"lesson", "number"}: the revision of another lesson that is the other half of this one
# redoes:: step that was undone and is done again
Sequel.migration do
  up do
    alter_table(:lesson_revisions) do
      add_column :step, Integer
      add_column :field, String
      add_column :moved, :jsonb
      add_column :redoes, Integer
    end
    from(:lesson_revisions).update(step: :number)
    alter_table(:lesson_revisions) do
      set_column_not_null :step
      add_constraint(:lesson_revisions_step_before, Sequel.lit("step BETWEEN 1 AND number"))
      add_index %i[lesson_id step]
    end
  end

  down do
    alter_table(:lesson_revisions) do
      drop_index %i[lesson_id step]
      drop_constraint :lesson_revisions_step_before
      %i[step field moved redoes].each { |column| drop_column column }
    end
  end
end

# frozen_string_literal: true

# Which of the ways to begin a teacher has used: the page of the day shows the others. Whoever has taught has begun.
Sequel.migration do
  up do
    alter_table(:accounts) { add_column :begun, "text[]", null: false, default: Sequel.lit("'{}'") }
    run "UPDATE accounts SET begun = '{try,file,starters}' WHERE id IN (SELECT account_id FROM sessions)"
  end

  down { alter_table(:accounts) { drop_column :begun } }
end

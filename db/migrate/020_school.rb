# frozen_string_literal: true

# The school, of which there is one, and who may teach here.
Sequel.migration do
  up do
    create_table(:school) do
      Integer :id, primary_key: true, default: 1
      String :name, null: false, default: ""
      String :time_zone, null: false, default: "Europe/London"
      column :languages, "text[]", null: false, default: Sequel.lit("'{en}'")
      column :top_grade, "numeric(6,2)", null: false, default: 100
      column :grade_step, "numeric(6,2)", null: false, default: 1
      Integer :keep_days
      String :joining, null: false, default: "invited"
      column :domains, "text[]", null: false, default: Sequel.lit("'{}'")
      constraint(:school_is_one, id: 1)
      constraint(:school_joining, joining: %w[invited domains])
      constraint(:school_keeps) { (keep_days =~ nil) | (keep_days >= 30) }
      constraint(:school_grades) { (top_grade > 0) & (grade_step > 0) & (grade_step <= top_grade) }
    end
    run "INSERT INTO school DEFAULT VALUES"

    alter_table(:accounts) do
      add_column :keeper, TrueClass, null: false, default: false
      add_column :stopped_at, "timestamptz"
      add_index :keeper, unique: true, where: :keeper, name: :accounts_one_keeper
    end
    run "UPDATE accounts SET keeper = true WHERE id = (SELECT min(id) FROM accounts)"

    create_table(:invitations) do
      String :digest, primary_key: true
      String :email
      foreign_key :account_id, :accounts, type: :Bignum, null: false, on_delete: :cascade
      column :created_at, "timestamptz", null: false, default: Sequel.lit("now()")
    end

    alter_table(:sign_ups) { add_column :invitation, String }
  end

  down do
    alter_table(:sign_ups) { drop_column :invitation }
    drop_table :invitations
    alter_table(:accounts) do
      drop_column :keeper
      drop_column :stopped_at
    end
    drop_table :school
  end
end

# frozen_string_literal: true

# A session may be given to a class; a student may be in a group of a class; a seat may be asked for more
# than a name, and a name may be stopped.
Sequel.migration do
  change do
    alter_table(:sessions) do
      add_foreign_key :class_id, :classes, type: :Bignum, on_delete: :set_null
      add_index :class_id
    end

    alter_table(:seats) do
      add_column :extra, String, null: false, default: ""
    end

    create_table(:stopped_names) do
      foreign_key :session_id, :sessions, type: :Bignum, null: false, on_delete: :cascade
      String :name, null: false
      column :at, "timestamptz", null: false, default: Sequel.lit("clock_timestamp()")
      column :allowed_at, "timestamptz"
      primary_key %i[session_id name]
    end

    alter_table(:enrolments) do
      add_column :group_name, String, null: false, default: ""
    end
  end
end

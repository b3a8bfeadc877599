# frozen_string_literal: true

# A student's personal code.
Sequel.migration do
  change do
    alter_table(:students) do
      add_column :pass, "char(12)"
      add_index :pass, unique: true, name: :students_pass
    end
  end
end

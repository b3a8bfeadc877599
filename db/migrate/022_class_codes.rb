# frozen_string_literal: true

# Each class has a code that leads to its page. Made by the program when it is first wanted.
Sequel.migration do
  change do
    alter_table(:classes) do
      add_column :code, "char(8)"
      add_index :code, unique: true, name: :classes_code
    end
  end
end

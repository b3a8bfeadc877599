# frozen_string_literal: true

# A student's personal code, and what a device calls itself, so that one whose seat was taken out can't come
# straight back.
Sequel.migration do
  change do
    alter_table(:students) do
      add_column :pass, "char(12)"
      add_index :pass, unique: true, name: :students_pass
    end

    alter_table(:seats) { add_column :device, String }
  end
end

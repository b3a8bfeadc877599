# frozen_string_literal: true

# A colleague who teaches a class no more keeps the sessions she gave it, with the class as it was on the day she left.
Sequel.migration do
  change do
    alter_table(:sessions) { add_column :roll, :jsonb }
  end
end

# frozen_string_literal: true

# What the school's own records said of a class and of a person that this program does not use itself, so that it can be
# given back: terms, course and teachers; user names and grades.
Sequel.migration do
  change do
    add_column :classes, :records, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
    add_column :students, :records, :jsonb, null: false, default: Sequel.lit("'{}'::jsonb")
  end
end

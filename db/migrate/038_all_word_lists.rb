# frozen_string_literal: true

# Names are held against the lists of all languages.
Sequel.migration do
  up { alter_table(:school) { drop_column :languages } }
  down { alter_table(:school) { add_column :languages, "text[]", null: false, default: Sequel.lit("'{en}'") } }
end

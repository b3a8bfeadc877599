# frozen_string_literal: true

# The family part of a name, by which lists are sorted, in the order of the school's language; a class may be sorted by
# first names. Of names that are there it is the last word, with what belongs to it.
#
# family:: what the name ends in; "" of a single name
Sequel.migration do
  up do
    alter_table(:students) { add_column :family, String, null: false, default: "" }
    alter_table(:classes) { add_column :by_first_name, TrueClass, null: false, default: false }
    alter_table(:school) { add_column :language, String, null: false, default: "en" }
    before = "van|von|vom|der|den|de|del|della|di|da|das|do|dos|du|la|le|al|el|bin|ibn|ben|ter|ten|zu|zum|zur|af|av"
    family = "\\s((?:(?:#{before})\\s+)*\\S+(?:\\s+(?:Jr|Sr|II|III|IV)\\.?)?)$"
    run "UPDATE students SET family = coalesce(substring(name FROM '#{family}'), '')"
  end

  down do
    alter_table(:students) { drop_column :family }
    alter_table(:classes) { drop_column :by_first_name }
    alter_table(:school) { drop_column :language }
  end
end

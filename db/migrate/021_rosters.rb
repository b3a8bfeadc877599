# frozen_string_literal: true

# Students and classes are known to other programs by an id of their own, which a roster from outside brings with it.
Sequel.migration do
  change do
    %i[students classes].each do |table|
      alter_table(table) do
        add_column :sourced_id, String, null: false, default: Sequel.lit("gen_random_uuid()::text")
        add_column :rostered, TrueClass, null: false, default: false
      end
    end
    alter_table(:students) { add_index :sourced_id, unique: true, where: { deleted_at: nil }, name: :students_sourced_once }
    alter_table(:classes) { add_index %i[account_id sourced_id] }
  end
end

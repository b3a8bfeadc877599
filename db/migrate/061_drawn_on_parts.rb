# frozen_string_literal: true

# An answer may have parts that are drawn on one by one, as cards are; of a sketch it is "".
Sequel.migration do
  up do
    alter_table(:drawn_on) do
      add_column :part, String, null: false, default: ""
      drop_constraint :drawn_on_pkey, type: :primary_key
      add_primary_key %i[seat_id slide_id attempt part], name: :drawn_on_pkey
    end
  end

  down do
    from(:drawn_on).exclude(part: "").delete
    alter_table(:drawn_on) do
      drop_constraint :drawn_on_pkey, type: :primary_key
      drop_column :part
      add_primary_key %i[seat_id slide_id attempt], name: :drawn_on_pkey
    end
  end
end

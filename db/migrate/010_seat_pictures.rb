# frozen_string_literal: true

# Pictures that were sent from seats are not for everybody who knows what is in them.
#
# shared:: whether a teacher has uploaded it, so that it stands at /media
Sequel.migration do
  up do
    alter_table(:media) { add_column :shared, TrueClass, null: false, default: true }
    create_table(:seat_pictures) do
      foreign_key :seat_id, :seats, type: :Bignum, null: false, on_delete: :cascade
      foreign_key :file, :media, type: String, key: :file, null: false, on_delete: :cascade
      column :sent_at, "timestamptz", null: false, default: Sequel.lit("now()")
      primary_key %i[seat_id file]
      index :file
    end
  end

  down do
    drop_table(:seat_pictures)
    alter_table(:media) { drop_column :shared }
  end
end

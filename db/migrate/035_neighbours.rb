# frozen_string_literal: true

# Keypads belong to their receiver, so that two receivers with the same numbers share no seat; receivers that only knock and never
# look are known. A password is chosen after the link in the mail was opened, so that none waits with the address.
Sequel.migration do
  up do
    alter_table(:receivers) { add_column :seen_at, "timestamptz" }
    alter_table(:seats) do
      add_foreign_key :receiver_id, :receivers, type: :Bignum, on_delete: :set_null
      drop_index %i[session_id keypad], name: :seats_keypad_once
      add_index [:session_id, Sequel.function(:coalesce, :receiver_id, 0), :keypad], unique: true, name: :seats_keypad_once,
                                                                                    where: Sequel.lit("removed_at IS NULL")
    end
    run "DELETE FROM sign_ups"
    alter_table(:sign_ups) { drop_column :password_hash }
  end

  down do
    run "DELETE FROM sign_ups"
    alter_table(:sign_ups) { add_column :password_hash, String, null: false }
    run "DELETE FROM seats WHERE keypad IS NOT NULL AND id NOT IN (SELECT min(id) FROM seats GROUP BY session_id, keypad)"
    alter_table(:seats) do
      drop_index %i[session_id keypad], name: :seats_keypad_once
      drop_column :receiver_id
      add_index %i[session_id keypad], unique: true, name: :seats_keypad_once, where: Sequel.lit("removed_at IS NULL")
    end
    alter_table(:receivers) { drop_column :seen_at }
  end
end

# frozen_string_literal: true

Sequel.migration do
  # Whether a device was taken out lately is asked of everybody who comes, and hardly anybody ever was.
  up { add_index :seats, :session_id, where: Sequel.~(removed_at: nil), name: :seats_removed }

  down { drop_index :seats, :session_id, name: :seats_removed }
end

# frozen_string_literal: true

# From which devices a teacher has signed in, instead of from which addresses: a school has one address, and who sits behind
# it could guess without waiting.
Sequel.migration do
  up do
    from(:sign_in_addresses).delete
    rename_table :sign_in_addresses, :sign_in_devices
  end

  down do
    from(:sign_in_devices).delete
    rename_table :sign_in_devices, :sign_in_addresses
  end
end

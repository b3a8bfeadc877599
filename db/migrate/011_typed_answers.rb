# frozen_string_literal: true

# What a device sent and its kind could not read is kept as it was typed: {field => [texts]}.
Sequel.migration do
  change do
    alter_table(:answers) { add_column :typed, :jsonb }
  end
end

# frozen_string_literal: true

# A form that starts or assigns something carries a number of its own, so that pressing its button twice does it once.
Sequel.migration do
  change do
    alter_table(:sessions) do
      add_column :once, :uuid
      add_index %i[account_id once], unique: true, where: Sequel.lit("once IS NOT NULL"), name: :sessions_asked_once
    end
  end
end

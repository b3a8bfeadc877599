# frozen_string_literal: true

# Names that say what they hold: sessions that each goes through at their own speed, and what another window wrote.
Sequel.migration do
  change do
    rename_column :sessions, :alone, :self_paced
    rename_column :answers, :beside, :conflicting_version
  end
end

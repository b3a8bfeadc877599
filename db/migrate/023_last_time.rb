# frozen_string_literal: true

# How questions of a session's lesson went when they were asked in an earlier one, as it was when this one began.
Sequel.migration do
  change { alter_table(:sessions) { add_column :last_time, :jsonb, null: false, default: Sequel.lit("'{}'") } }
end

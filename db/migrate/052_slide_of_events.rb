# frozen_string_literal: true

# On which slide the class was after a command, so that one can look back on the lesson as it went. NULL of those before this, and
# before the first slide.
Sequel.migration do
  change do
    add_column :session_events, :slide_id, String
  end
end

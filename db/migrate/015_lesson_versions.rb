# frozen_string_literal: true

# Versions of frozen lessons are never given twice, not even where a transaction is taken back, so
# that what a process remembers of one is true for ever.
Sequel.migration do
  up { run "CREATE SEQUENCE lesson_versions AS integer START 1000000" }
  down { run "DROP SEQUENCE lesson_versions" }
end

# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What one seat sent for one slide. `value` is as the prompt's kind read it;
      # `final` says it was handed in; `late` that it came after answering had ended.
      # `arrival` puts answers into the order in which they first came. Times are seconds
      # since the epoch by the database clock. What can't be read as an answer (rules.md) has
      # no value and is kept as `typed`: field to texts. `by_line` says that it came late for the
      # line's sake and counts; `attempt` at the question, from 1. `conflicting_version` is what another window of the
      # seat wrote, like `typed`. `let_count` says that it came late and the teacher lets it count. `sure` is how sure the
      # student said to be, 1 to 3, or nil; `entered` that the teacher entered it for a team at the board.
      Answer = Struct.new(:seat_id, :slide_id, :attempt, :value, :final, :late, :received_at, :arrival, :typed, :by_line,
                          :conflicting_version, :save_id, :let_count, :sure, :entered, keyword_init: true) do
        # Whether it came late and earns nothing for that.
        def late? = late && !let_count

        # Handed in by the end of answering rather than by the student.
        def unfinished?(opening) = !final && !opening&.open?

        # Whether it is an answer, and not only something typed.
        def readable? = typed.nil?

        # What was typed, for a person.
        # @return [String]
        def typed_text = Answer.words(typed)

        # What another window wrote, for a person.
        # @return [String, nil]
        def conflicting_text = conflicting_version && Answer.words(conflicting_version)

        def self.words(fields) = fields.values.flatten.reject(&:empty?).join("; ")
      end
    end
  end
end

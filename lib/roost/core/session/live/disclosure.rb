# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What a student may be told of a question they were given (rules.md, sittings and copies): :nothing, how they did
      # (:outcome), or also what is right and why (:key). The one place that says so, for a sitting's pages, a student's own page
      # and copies alike.
      module Disclosure
        class << self
          # Of a sitting, by its feedback.
          # @param sitting [Sitting]
          # @param answer [Answer, nil] to the question, in that sitting; nil of a blank one
          # @param open [Boolean] whether this student may still answer, in this attempt or another
          # @param contested [Boolean] whether anybody may still answer the same question
          # @return [Symbol]
          def in_sitting(sitting, answer, now:, open:, contested:)
            over = sitting.settled?(now)
            case sitting.rules["feedback"]
            when "right" then over || final?(answer) ? :outcome : :nothing
            when "explained" then explained(over, answer, contested)
            when "end" then at_end(over && !open, contested)
            else :nothing
            end
          end

          # Of a question that was asked in the room, once the session is over.
          # @param opening [Opening, nil] the last
          # @param rules [Rules] of the session
          # @return [Symbol]
          def in_room(opening, rules:, contested:)
            return contested ? :nothing : :key unless rules.copies_follow_room?
            return :nothing unless opening&.told_at

            opening.key_at && !contested ? :key : :outcome
          end

          # The same on a copy, which can be handed on: nothing of the key while anybody may still answer.
          # @param level [Symbol]
          def on_copy(level, contested:) = level == :key && contested ? :outcome : level

          private

          def final?(answer) = answer ? answer.final : false

          # At once of what was handed in; of a blank what is right only when nobody can use it any more.
          def explained(over, answer, contested)
            return :nothing unless over || final?(answer)

            answer || !contested ? :key : :outcome
          end

          def at_end(over, contested)
            return :nothing unless over

            contested ? :outcome : :key
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How one seat did on one slide (Scoring says why).
      #
      # status::  :right, :part, :wrong; :given (nothing marks it); :blank (shown, no
      #           answer); :not_reached (never shown); the last two are never mixed up;
      #           :set_aside (the question was set aside and counts for nobody); :unread (something
      #           was typed that can't be read as an answer; it earns nothing); :late (it came after answering
      #           had ended, or after it was told what is right, and earns nothing until the teacher lets it count);
      #           :to_mark (others were marked by hand, and this is still to be)
      # mark::    Rational 0 to 1, nil when nothing is marked
      # points::  Integer, nil unless the question is played for points
      # answer::  what was given, nil where that is blank; of many at once it may be what they gave alike (AnswerSet)
      Outcome = Struct.new(:status, :mark, :points, :answer, :unfinished) do
        # What is said of each to whoever answered.
        self::IN_WORDS = { right: "✓ Right", part: "◐ Partly right", wrong: "✗ Not this time", blank: "– No answer",
                           set_aside: "This question doesn't count", not_reached: "· Not reached",
                           given: "Handed in: nothing marks it", to_mark: "Handed in: your teacher will mark it",
                           unread: "Kept as you typed it",
                           late: "– Came late: your teacher has it, and it doesn't count yet" }.freeze

        # How a mark is called.
        # @param mark [Rational, nil]
        # @return [Symbol] :given, :wrong, :part or :right
        def self.status(mark)
          return :given if mark.nil?
          return :wrong if mark.zero?

          mark == 1 ? :right : :part
        end
      end
    end
  end
end

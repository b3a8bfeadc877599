# frozen_string_literal: true

module Roost
  module Operations
    # A question nobody prepared: it gets a slide of its own after the present one, in the
    # session's copy of the lesson, and is kept in the records like any other.
    class AskNow
      HEADING_LIMIT = 200

      # @param words [String] a key of Core::Kinds.on_the_spot
      # @param heading [String] the question; may be empty when it is asked aloud
      # @param from [String] the slide the Desk was on: sent twice, it asks once
      # @return [Core::Reading, nil] of the next Core::Session::State; nil when she has no such session
      def call(account_id, session_id, words, heading, from:)
        sessions = Store::Sessions.new
        sessions.transaction do
          row = sessions.of_teacher(account_id, session_id, lock: true)
          next nil if row.nil? || row.deleted
          next Core::Reading.ok(row.state) unless row.state.slide_id == from

          slide(row, words, heading).and_then do |slide|
            sessions.change_lesson(row, sessions.lesson_of(row).with_slides_after(from, [slide]))
            CommandSession.new.call(account_id, session_id, "jump", { "slide" => slide.id })
          end
        end
      end

      private

      # Students are at work by themselves.
      def in_quiz?(row) = row.state.open? && Store::Sessions.new.lesson_of(row).quiz(row.state.slide_id)

      def slide(row, words, heading)
        kind, settings = Core::Kinds.on_the_spot[words]
        return Core::Reading.refused("That can't be asked on the spot. Reload the page.") unless kind && row.state.live?
        return Core::Reading.refused("Close the quiz first, then ask.") if in_quiz?(row)

        Core::Text.read(heading, limit: HEADING_LIMIT, what: "The question", lines: false).map do |text|
          id = "ask#{row.version}"
          Core::Slide.new(id: id, heading: text.empty? ? "Asked now: #{words.downcase}" : text,
                          prompt: kind.new(id: "p-#{id}", settings: settings))
        end
      end
    end
  end
end

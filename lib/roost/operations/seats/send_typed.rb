# frozen_string_literal: true

module Roost
  module Operations
    # A student sends the teacher what can't be taken as an answer any more, as it was typed. It earns nothing.
    class SendTyped
      LIMIT = 10_000 # characters
      MOST = 40 # of a seat
      MANY = "That is all that can be sent. Copy the text, and give it to your teacher."
      NOTHING = "There is nothing to send."

      # @param seat [Hash] :id and :session_id
      # @param message [Hash, nil] "slide" and "text"
      # @return [Core::Reading] of the text
      def call(seat, message)
        return Core::Reading.refused(NOTHING) unless message.is_a?(Hash)

        slide = Store::Sessions.new.lesson(seat[:session_id]).slide(message["slide"])
        return Core::Reading.refused(NOTHING) unless slide&.prompt

        Core::Text.read(message["text"], limit: LIMIT, what: "That text").and_then do |text|
          next Core::Reading.refused(NOTHING) if text.empty?

          texts = Store::SentTexts.new
          next Core::Reading.refused(MANY) unless texts.room?(seat[:id], MOST)

          texts.add(seat[:id], slide.id, text)
          Core::Reading.ok(text)
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # Reads what a device sent as an answer, limits it, and says what of it there is to say to the
      # student (rules.md, reading an answer).
      class Reader < Part
        # @param raw anything that was sent as the form of an answer: {"name" => ["text"]}
        # @param names [Session::ItemIds] what the parts of the question are called at that seat
        # @return [Reading] of a value
        def read(_raw, _names = nil) = raise(NotImplementedError)

        # Whether there is nothing in a value to hand in.
        def blank_answer?(_value) = raise(NotImplementedError)

        # What of a value others get to see as it was written, without the teacher choosing it. What of that doesn't belong on a
        # wall is kept with the value as "held" (rules.md, Names).
        # @return [Hash{String=>String}] what it is known by to text
        def projected(_value) = {}

        # What to do before there is anything to hand in.
        def missing = "There is nothing to hand in yet."

        # What was made of an answer, for the student to see while typing.
        # @return [String, nil] nil where that is plain to see
        def understood(_value) = nil

        # What a handheld keypad can answer it with, :letters or :digits; nil where it can't.
        # @return [Symbol, nil]
        def keypad_takes = nil

        # The letters that may be pressed.
        # @return [Array<String>]
        def keypad_keys = []

        # What was pressed on a keypad, as the form of an answer.
        # @param keys [String] letters, or digits with a point
        # @return [Hash, nil] nil where that is no answer
        def keypad(_keys) = nil

        # The key that stands for an answer.
        # @return [String, nil] nil where none does, or several do
        def keypad_of(_value) = nil

        private

        # One text field of an answer.
        def field(raw, name)
          return nil unless raw.is_a?(Hash)

          values = raw[name]
          values.is_a?(Array) ? values.first : values
        end
      end
    end
  end
end

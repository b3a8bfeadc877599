# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What there is to say of a value that was given, whoever gave it.
      #
      # blank::  whether there is nothing in it
      # mark::   how right it is, Rational 0 to 1; nil where nothing marks it
      # status:: how that is called (Outcome)
      Worth = Struct.new(:blank, :mark, :status) do
        # @param prompt [Prompt]
        # @param value [Hash] as the prompt's kind read it
        def self.of(prompt, value)
          blank = prompt.blank_answer?(value)
          mark = prompt.mark(value) if prompt.keyed? && !blank
          new(blank, mark, Outcome.status(mark)).freeze
        end
      end
    end
  end
end

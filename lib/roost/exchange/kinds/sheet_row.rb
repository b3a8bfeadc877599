# frozen_string_literal: true

require "forwardable"

module Roost
  module Exchange
    module Kinds
      # A question as a row of a sheet of questions (QuestionRow), both ways. A kind says what of it
      # stands in the columns of its own; a kind that says nothing has only what all questions have.
      class SheetRow
        extend Forwardable

        # What its cells hold, for the pattern of a sheet: "options", "right" and "rules".
        EXPLAINED = {}.freeze
        # A row, by column, for the same.
        EXAMPLE = {}.freeze

        # @param id [String] for the prompt
        # @param kind [Class] of prompt
        # @param options [Array<String>] the option columns in order, empty ones included
        # @param right [String] what is right, as people write it
        # @param rules [RowRules] in words; what a kind does not know is not for it
        # @param common [Hash] a form with the settings every kind has
        # @return [Core::Reading] of a prompt
        def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          kind.new(id: id, settings: {}).edited(common)
        end

        def self.of_prompt(*names) = def_delegators(:prompt, *names)

        def initialize(prompt)
          @prompt = prompt
        end

        # @return [Array<String>] the option columns
        def options = []

        # @return [String] what is right
        def right = ""

        # @return [Hash{String=>Core::Picture}] pictures, by what the sheet calls their place ("A" is option A)
        def pictures = {}

        # @return [Hash{String=>String}] where pictures can go, as ids for Core::Prompt#picturing
        def slots = {}

        # @return [Array<String>] in words
        def rules = []

        private

        attr_reader :prompt

        # What of the words is true.
        # @param said [Hash{String=>Boolean}]
        def true_of(said) = said.filter_map { |words, true_here| words if true_here }
      end
    end
  end
end

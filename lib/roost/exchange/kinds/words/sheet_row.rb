# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Words
        # Single words as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "a word that a practice class may give", "rules" => "up to 3 words" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            number = rules.filter_map { |rule| rule[/\Aup to (\d) words?\z/, 1] }.first
            samples = options.reject(&:empty?).map { |text| text[0, kind::WORD_LIMIT] }
            kind.new(id: id, settings: { "samples" => samples }).edited(common.merge("most" => number.to_s))
          end

          def options = prompt.settings["samples"]

          def rules = ["up to #{prompt.most} words"]
        end
      end
    end
  end
end

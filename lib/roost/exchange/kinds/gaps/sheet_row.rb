# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Gaps
        # A text with gaps as a row of a sheet of questions, both ways: the text in option A, other words
        # for the bank in those that follow.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "in A the text with its [[gaps]], then other words for the bank",
                        "rules" => "word bank, no slips, accents don't matter" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            text, *distractors = options
            return Core::Reading.refused("“Option A” has no gap; write [[word]]") unless text.match?(kind::GAP)

            ticks = { "bank" => rules.include?("word bank"), "slip" => !rules.include?("no slips"),
                      "accents" => !rules.include?("accents don't matter") }.transform_values { |ticked| ticked ? "1" : "0" }
            others = distractors.reject(&:empty?).join(",")
            kind.new(id: id, settings: {}).edited(common.merge(ticks, "text" => text, "distractors" => others))
          end

          of_prompt :settings

          def options = [prompt.text, *settings["distractors"]]

          def rules
            true_of("word bank" => prompt.bank?, "accents don't matter" => !settings["accents"], "no slips" => !settings["slip"])
          end
        end
      end
    end
  end
end

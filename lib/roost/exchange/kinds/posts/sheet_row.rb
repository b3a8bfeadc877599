# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Posts
        # A board as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "columns",
                        "rules" => "up to 3 cards, shown at once, with names, no likes, no pictures" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            number = rules.filter_map { |rule| rule[/\Aup to (\d+) cards?\z/, 1] }.first
            ticks = { "approve" => !rules.include?("shown at once"), "named" => rules.include?("with names"),
                      "likes" => !rules.include?("no likes"), "pictures" => !rules.include?("no pictures") }
            columns = options.reject(&:empty?).join(",")
            kind.new(id: id, settings: {}).edited(
              common.merge(ticks.transform_values { |said| said ? "1" : "0" }, "most" => number.to_s, "columns" => columns)
            )
          end

          of_prompt :most

          def options = prompt.columns

          def rules
            true_of("up to #{most} cards" => true, "shown at once" => !prompt.approve?, "with names" => prompt.named?,
                    "no likes" => !prompt.likes?, "no pictures" => !prompt.uploads?)
          end
        end
      end
    end
  end
end

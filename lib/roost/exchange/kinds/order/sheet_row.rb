# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Order
        # Items in their order as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "an item", "rules" => "along a line, all or nothing" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            number = rules.match(/\A(\d+) items\z/)&.[](1).to_i.clamp(0, kind::ITEMS.max)
            texts = options[0...[(options.rindex { |text| !text.empty? } || 0) + 1, number].max]
            return Core::Reading.refused("it has fewer than two items") if texts.length < 2

            list = kind.items(texts)
            kind.new(id: id, settings: { "items" => list, "made" => list.length })
                .edited(common.merge("along" => rules.include?("along a line") ? "1" : "0",
                                     "partial" => rules.include?("all or nothing") ? "0" : "1"))
          end

          of_prompt :items, :partial?

          def options = items.map(&:text)

          def rules
            true_of("along a line" => prompt.along?, "part marks" => partial?, "all or nothing" => !partial?,
                    "#{items.length} items" => items.last.text.empty?)
          end
        end
      end
    end
  end
end

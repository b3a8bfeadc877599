# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Spots
        # Spots as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "right" => "regions in parts of the picture, like circle 0.5 0.4 0.1 0.1 x2 or rectangle 0 0 0.2 0.3",
                        "rules" => "up to 3 spots, labelled, mark ring, in moss" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            texts = right.split(";").map(&:strip).reject(&:empty?)
            found = texts.each_with_index.map { |text, place| Core::Kinds::Spots::Region.from_words(text, "r#{place + 1}") }
            bad = found.index(nil)
            return Core::Reading.refused("“Right” has no region “#{texts[bad][0, 30]}”; write circle 0.5 0.5 0.1 0.1") if bad

            kind.new(id: id, settings: {}).edited(common.merge(look(rules), "regions" => JSON.generate(found.map(&:to_document))))
          end

          def self.look(rules)
            said = ->(pattern) { rules.filter_map { |rule| rule[pattern, 1] }.first }
            { "most" => said.call(/\Aup to (\d+) spots?\z/).to_s, "mark" => said.call(/\Amark (\w+)\z/),
              "colour" => said.call(/\Ain (\w+)\z/), "labels" => rules.include?("labelled") ? "1" : "0" }
          end
          private_class_method :look

          of_prompt :most

          def right = prompt.regions.map(&:in_words).join("; ")

          def rules
            true_of("up to #{most} spots" => most > 1, "labelled" => prompt.labels?, "mark #{prompt.mark_kind}" => true,
                    "in #{prompt.settings["colour"]}" => true)
          end
        end
      end
    end
  end
end

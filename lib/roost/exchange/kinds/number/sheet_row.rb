# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Number
        # A number as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "right" => "3.5 +- 0.1 or 3 to 4", "rules" => "in \"km\"" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            low, high = right.split(/\s+to\s+/, 2)
            form = high ? { "key" => "range", "low" => low, "high" => high } : value(right)
            kind.new(id: id, settings: {}).edited(common.merge(form, "unit" => rules.text("in")))
          end

          def self.value(right)
            value, tolerance = right.split(/\s*(?:\+-|±)\s*/, 2)
            { "key" => "value", "value" => value, "tolerance" => tolerance.to_s.delete("%"),
              "percent" => tolerance.to_s.include?("%") ? "1" : "0" }
          end
          private_class_method :value

          of_prompt :settings, :unit

          def right
            return "" unless prompt.keyed?
            return "#{settings["low"]} to #{settings["high"]}" if settings["key"] == "range"

            sign = settings["percent"] ? "%" : ""
            settings["tolerance"] ? "#{settings["value"]} +- #{settings["tolerance"]}#{sign}" : settings["value"]
          end

          def rules = true_of("in #{RowRules.quote(unit)}" => !unit.empty?)
        end
      end
    end
  end
end

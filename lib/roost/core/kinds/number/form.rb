# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          KEYS = { "value" => "A value", "range" => "A range" }.freeze
          UNIT_LIMIT = 20

          of_prompt :settings, :with_settings, :unit

          # @param form [Hash] "unit", "key" (one of KEYS), "value", "tolerance", "percent",
          #   "low", "high" as typed
          def edited(form)
            read_common(form).and_then do |common|
              read_unit(form).and_then do |unit|
                read_numbers(form).and_then do |numbers|
                  key = KEYS.key?(form["key"]) ? form["key"] : settings["key"]
                  with_settings(common.merge(numbers, "unit" => unit, "key" => key, "percent" => form["percent"] == "1")).checked
                end
              end
            end
          end

          private

          def read_unit(form)
            Text.read(form.fetch("unit", unit), limit: UNIT_LIMIT, what: "The unit", lines: false)
          end

          # Kept as exact text, so that 0.1 stays a tenth.
          def read_numbers(form)
            given = form.slice("value", "tolerance", "low", "high")
            readings = given.transform_values { |text| NumberText.read(text) }
            refused = readings.values.find { |reading| !reading.ok? }
            return Reading.refused("The key: #{refused.reason}") if refused

            Reading.ok(readings.transform_values { |reading| reading.value && NumberText.show(reading.value) })
          end
        end
      end
    end
  end
end

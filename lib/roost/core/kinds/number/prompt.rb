# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Number
        # Types a number, with a unit if one is asked for. The key is a value with a tolerance
        # (absolute, or percent of the value) or a closed range. A value is
        # {"text" => as typed, "number" => "7/2"}: exact, as text.
        class Prompt < Core::Prompt
          def self.label = "Number"
          def self.place = 2
          def self.usual_seconds = 25
          def self.purpose = "Type a number, with a unit if you ask for one"
          def self.charted? = true
          def self.keyable? = true
          def self.on_the_spot = { "A number" => { "poll" => true } }

          def self.blank
            { "unit" => "", "key" => "value", "value" => nil, "tolerance" => nil, "percent" => false, "low" => nil,
              "high" => nil }
          end

          def instruction = unit.empty? ? "Type a number" : "Type a number, in #{unit}"

          # @return [Reading] of itself, refused when the key makes no sense
          def checked
            return Reading.refused("A tolerance can't be below zero.") if number("tolerance")&.negative?
            return Reading.refused("The range has to end above where it begins.") if range? && number("low") > number("high")

            Reading.ok(self)
          end

          def unit = settings["unit"]

          def keyed? = !band.nil?

          # @return [Array(Rational, Rational), nil] least and greatest right number
          def band
            return nil if settings["poll"]
            return (range? ? [number("low"), number("high")] : nil) if settings["key"] == "range"

            value = number("value")
            value && settings["key"] == "value" ? [value - tolerance, value + tolerance] : nil
          end

          # The number that is typed.
          def to_read = ["1"]

          def searchable = super + [unit]

          private

          def range? = settings["key"] == "range" && number("low") && number("high") ? true : false

          def number(name) = settings[name] && Rational(settings[name])

          def tolerance
            given = number("tolerance") || 0r
            settings["percent"] ? (number("value") * given / 100).abs : given
          end
        end
      end
    end
  end
end

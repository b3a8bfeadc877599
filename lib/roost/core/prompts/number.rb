# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Types a number, with a unit if one is asked for. The key is a value with a tolerance
      # (absolute, or percent of the value) or a closed range. A value is
      # {"text" => as typed, "number" => "7/2"}: exact, as text.
      class Number < Prompt
        # band:: [low, high] of the key, nil without one; spread:: Tallies::Spread, nil of no answers
        Tally = Struct.new(:spread, :answered, :right, :band, keyword_init: true)

        KEYS = { "value" => "A value", "range" => "A range" }.freeze
        UNIT_LIMIT = 20

        def self.label = "Number"
        def self.place = 2
        def self.purpose = "Type a number, with a unit if you ask for one"
        def self.charted? = true
        def self.keyable? = true
        def self.on_the_spot = { "A number" => { "poll" => true } }

        def self.blank
          { "unit" => "", "key" => "value", "value" => nil, "tolerance" => nil, "percent" => false, "low" => nil, "high" => nil }
        end

        def instruction = unit.empty? ? "Type a number" : "Type a number, in #{unit}"

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

        def words = 1

        def searchable = super + [unit]

        def row_right
          return "" unless keyed?
          return "#{settings["low"]} to #{settings["high"]}" if settings["key"] == "range"

          sign = settings["percent"] ? "%" : ""
          settings["tolerance"] ? "#{settings["value"]} +- #{settings["tolerance"]}#{sign}" : settings["value"]
        end

        def rules = unit.empty? ? [] : ["in #{RowRules.quote(unit)}"]

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          unit = rules.text("in")
          low, high = right.split(/\s+to\s+/, 2)
          form = if high
                   { "key" => "range", "low" => low, "high" => high }
                 else
                   value, tolerance = right.split(/\s*(?:\+-|±)\s*/, 2)
                   { "key" => "value", "value" => value, "tolerance" => tolerance.to_s.delete("%"),
                     "percent" => tolerance.to_s.include?("%") ? "1" : "0" }
                 end
          new(id: id, settings: {}).edited(common.merge(form, "unit" => unit))
        end

        # @param raw [Hash] "number" as typed
        def read(raw, _names = nil)
          text = Text.read(field(raw, "number"), limit: NumberText::LIMIT, what: "That number", lines: false)
          text.and_then { |typed| NumberText.read(typed, unit: unit) }.map do |number|
            number ? { "text" => text.value, "number" => number.to_s } : { "text" => "", "number" => nil }
          end
        end

        def missing = "Type a number first."

        def understood(value) = value["number"] && "Read as #{grouped(Rational(value["number"]))} #{unit}".strip

        def blank_answer?(value) = value["number"].nil?

        # rules.md, marks: 1 inside the tolerance or the closed range, else 0.
        def mark(value)
          low, high = band
          low && Rational(Rational(value["number"]).between?(low, high) ? 1 : 0)
        end

        def tally(values)
          counts = values.filter_map { |value| value["number"] }.tally.transform_keys { |text| Rational(text) }
          right = counts.sum { |number, count| number.between?(*band) ? count : 0 } if keyed?
          Tally.new(spread: Tallies::Spread.of_counts(counts), answered: counts.values.sum, right: right, band: band).freeze
        end

        def plain(value) = value["number"] ? "#{NumberText.show(Rational(value["number"]))} #{unit}".strip : ""

        def remark(value, tally) = tally.spread&.far&.include?(Rational(value["number"])) ? "far off" : nil

        # Right answers are the middle of the key; wrong ones stray from it, some by a factor of ten.
        def imagine(student, random)
          low, high = band || [5r, 15r]
          middle = (low + high) / 2
          knows = keyed? && student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)
          number = knows ? middle : stray(middle, random)
          { "text" => NumberText.show(number), "number" => number.to_s }
        end

        private

        # With a thin space between thousands, so that 1,200 is seen to be more than one.
        def grouped(number)
          whole, part = NumberText.show(number).split(".")
          [whole.gsub(/(?<=\d)(?=(?:\d{3})+\z)/, "\u202F"), part].compact.join(".")
        end

        def range? = settings["key"] == "range" && number("low") && number("high") ? true : false

        def number(name) = settings[name] && Rational(settings[name])

        def tolerance
          given = number("tolerance") || 0r
          settings["percent"] ? (number("value") * given / 100).abs : given
        end

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

        def stray(middle, random)
          return middle * 10 if random.rand < 0.06

          off = middle * Rational(((Student.normal(random) * 0.35) + 0.2).round(2).to_s)
          (middle + off).round(middle.abs >= 20 ? 0 : 1)
        end

        Student = Practice::Student
        private_constant :Student
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Picks one or several options. Without a key it is a poll. A value is
      # {"options" => [ids]} in the order the options stand.
      class Choice < Prompt
        Option = Struct.new(:id, :letter, :text, :key, keyword_init: true)
        Row = Struct.new(:option, :count, :share, keyword_init: true)
        Tally = Struct.new(:rows, :answered, :right, keyword_init: true)

        MOST_OPTIONS = 12
        OPTION_LIMIT = 200

        def self.label = "Choice"
        def self.place = 1
        def self.purpose = "Pick one or several options"
        def self.charted? = true

        def self.on_the_spot
          { "Yes or no" => %w[Yes No], "A to D" => %w[A B C D], "How sure?" => ["Sure", "Nearly sure", "Not yet"] }
            .transform_values do |texts|
              { "options" => texts.each_with_index.map { |text, place| { "id" => "o#{place + 1}", "text" => text } } }
            end
        end

        def self.blank
          { "options" => (1..4).map { |number| { "id" => "o#{number}", "text" => "" } }, "made" => 4,
            "keys" => [], "several" => false, "partial" => false, "time_limit" => nil, "points" => nil }
        end

        def instruction = several? ? "Choose all that fit" : "Choose one"

        # @param form [Hash] "option_ids" and "option_texts" side by side, "keys",
        #   "several", "partial", and "do" => "add" or "remove:ID"
        def edited(form)
          read_common(form).and_then do |common|
            read_options(form).map do |options|
              changed = arranged(options, form["do"].to_s)
              ids = changed["options"].map { |option| option["id"] }
              keys = Array(form["keys"]).map(&:to_s) & ids
              several = form["several"] == "1"
              with_settings(common.merge(changed).merge("keys" => several ? keys : keys.first(1), "several" => several,
                                                        "partial" => several && form["partial"] == "1"))
            end
          end
        end

        def problems
          texts = options.map(&:text)
          [("fewer than two options" if texts.reject(&:empty?).length < 2),
           ("an option is empty" if texts.any?(&:empty?)),
           ("two options are the same" if texts.reject(&:empty?).uniq!)].compact + super
        end

        def keyed? = settings["keys"].any?

        def words = options.sum { |option| Text.words(option.text) }

        def several? = settings["several"]

        def partial? = settings["partial"]

        def options
          settings["options"].each_with_index.map do |option, place|
            Option.new(id: option["id"], letter: ("A".ord + place).chr, text: option["text"],
                       key: settings["keys"].include?(option["id"])).freeze
          end
        end

        def read(raw)
          return Reading.refused("That answer could not be read. Choose again.") unless raw.is_a?(Hash)

          picked = Array(raw["options"]).uniq
          known = settings["options"].map { |option| option["id"] }
          return Reading.refused("That option isn't on this slide. Choose again.") unless (picked - known).empty?
          return Reading.refused("Choose just one option.") if picked.length > 1 && !several?

          Reading.ok({ "options" => known & picked })
        end

        def blank_answer?(value) = value["options"].empty?

        # rules.md, marks: max(0, (hits - wrong picks) / keys) with partial credit.
        def mark(value)
          return nil unless keyed?

          keys = settings["keys"]
          picked = value["options"]
          return Rational(((keys - picked) | (picked - keys)).empty? ? 1 : 0) unless partial?

          hits = (picked & keys).length
          [Rational(0), Rational(hits - (picked - keys).length, keys.length)].max
        end

        # rules.md, tallies: count and share of those who answered.
        def tally(values)
          answered = values.reject { |value| blank_answer?(value) }
          counts = answered.flat_map { |value| value["options"] }.tally
          Tally.new(answered: answered.length, right: (answered.count { |value| mark(value) == 1 } if keyed?),
                    rows: options.map do |option|
                      count = counts.fetch(option.id, 0)
                      Row.new(option: option, count: count,
                              share: answered.empty? ? 0r : Rational(count, answered.length)).freeze
                    end).freeze
        end

        def plain(value)
          options.select { |option| value["options"].include?(option.id) }
                 .map { |option| "#{option.letter} #{option.text}" }.join("; ")
        end

        # A right answer with the chance of the Rasch model, never below guessing;
        # otherwise the first wrong options pull more than the last, and where several
        # may be chosen a part of the key comes with them.
        def imagine(student, random)
          ids = settings["options"].map { |option| option["id"] }
          if keyed? && student.knows?(settings["difficulty"] || 0.0, chance: 1.0 / ids.length, random: random)
            return { "options" => ids & settings["keys"] }
          end

          half_known = several? ? settings["keys"].select { random.rand < 0.6 } : []
          { "options" => ids & (half_known | [stray(random)]) }
        end

        private

        def read_options(form)
          return Reading.ok(settings["options"]) unless form["option_ids"]

          ids = Array(form["option_ids"]).map(&:to_s)
          texts = Array(form["option_texts"])
          known = settings["options"].map { |option| option["id"] }
          return Reading.refused("These options have changed meanwhile. Reload the page.") unless (ids - known).empty?

          readings = texts.first(ids.length).map do |text|
            Text.read(text, limit: OPTION_LIMIT, what: "An option", lines: false)
          end
          refused = readings.find { |reading| !reading.ok? }
          refused || Reading.ok(ids.zip(readings).map { |id, reading| { "id" => id, "text" => reading&.value.to_s } })
        end

        def arranged(options, action)
          made = settings["made"]
          verb, id = action.split(":", 2)
          if verb == "add" && options.length < MOST_OPTIONS
            made += 1
            options += [{ "id" => "o#{made}", "text" => "" }]
          elsif verb == "remove" && options.length > 2
            options = options.reject { |option| option["id"] == id }
          end
          { "options" => options, "made" => made }
        end

        def stray(random)
          ids = settings["options"].map { |option| option["id"] } - settings["keys"]
          ids = settings["options"].map { |option| option["id"] } if ids.empty?
          weights = ids.each_index.map { |place| 1.0 / (place + 1) }
          point = random.rand * weights.sum
          ids.each_with_index { |id, place| return id if (point -= weights[place]) <= 0 }
          ids.last
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Places up to N spots on the slide's picture. The key is regions, each of which wants
      # some of the spots. A value is {"spots" => [{"x", "y", "label"}]}: fractions of the
      # picture's width and height, so that any screen marks alike; the label only where asked.
      class Spots < Prompt
        # spots:: of all answers, as in a value; regions:: [Row]; outside:: spots in no region
        # found:: what was found out of each value: the regions its spots lie in, and its mark
        # heat:: Hash of aspect to the Density of these spots, filled as it is asked for, and what
        # it may be built upon
        Tally = Struct.new(:spots, :answered, :right, :regions, :outside, :found, :heat, keyword_init: true) do
          # @param aspect [Float] height of the picture divided by its width
          # @return [Tallies::Density]
          def density(aspect)
            heat[aspect] ||= begin
              older = heat[:older]
              onto = older && older[:heat][aspect]
              fresh = onto ? found.keys.reject { |value| older[:found].key?(value) }.flat_map { |value| value["spots"] } : spots
              Tallies::Density.new(fresh, aspect: aspect, onto: onto)
            end
          end
        end

        # inside:: spots in the region; seats:: answers with at least one spot in it
        Row = Struct.new(:region, :inside, :seats, keyword_init: true)

        MOST = (1..10)
        MARKS = %w[dot ring cross flag].freeze
        COLOURS = Sketch::COLOURS
        LABEL_LIMIT = 24
        MOST_REGIONS = 10
        MOST_BYTES = 8000
        PLACES = 4 # decimals of a coordinate
        UNREADABLE = Reading.refused("Those spots could not be read. Reload the page and place them again.")

        def self.label = "Spots"
        def self.place = 6
        def self.purpose = "Place spots on the picture"
        def self.charted? = true
        def self.keyable? = true
        def self.on_the_spot = {}

        def self.blank
          { "most" => 1, "mark" => "dot", "colour" => "rust", "labels" => false, "regions" => [] }
        end

        # @return [Array<Region>]
        attr_reader :regions

        def instruction
          what = most == 1 ? "Place a spot on the picture" : "Place up to #{most} spots on the picture"
          if labels?
            "#{what} and name #{most == 1 ? "it" : "them"}"
          else
            what
          end
        end

        # @param form [Hash] "most", "mark", "colour", "labels", "regions" (JSON of an Array as
        #   Region#to_document writes each)
        def edited(form)
          read_common(form).and_then do |common|
            read_number(form.fetch("most", most.to_s), MOST, "The number of spots", "spots").and_then do |number|
              read_regions(form).map do |regions|
                with_settings(common.merge(look(form), "most" => number || most, "regions" => regions))
              end
            end
          end
        end

        def problems
          short = keyed? && wanted > most
          [("the regions want #{wanted} spots, but only #{most} can be placed" if short)].compact + super
        end

        def keyed? = regions.any?

        # Any answer can be marked by any regions.
        def shape = most

        def uses_picture? = true

        def needs_picture? = true

        def most = settings["most"]

        def mark_kind = settings["mark"]

        # @return [String] as "#rrggbb"
        def colour = COLOURS.fetch(settings["colour"])

        def labels? = settings["labels"]

        # How many spots the regions want in all.
        def wanted = regions.sum(&:wanted)

        def searchable = super + regions.map(&:name)

        def row_right = regions.map(&:in_words).join("; ")

        def rules
          [("up to #{most} spots" if most > 1), ("labelled" if labels?), "mark #{mark_kind}", "in #{settings["colour"]}"].compact
        end

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          texts = right.split(";").map(&:strip).reject(&:empty?)
          found = texts.each_with_index.map { |text, place| Region.from_words(text, "r#{place + 1}") }
          bad = found.index(nil)
          return Reading.refused("“Right” has no region “#{texts[bad][0, 30]}”; write circle 0.5 0.5 0.1 0.1") if bad

          said = ->(pattern) { rules.filter_map { |rule| rule[pattern, 1] }.first }
          new(id: id, settings: {}).edited(
            common.merge("most" => said.call(/\Aup to (\d+) spots?\z/).to_s, "mark" => said.call(/\Amark (\w+)\z/),
                         "colour" => said.call(/\Ain (\w+)\z/), "labels" => rules.include?("labelled") ? "1" : "0",
                         "regions" => JSON.generate(found.map(&:to_document)))
          )
        end

        # @param raw [Hash] "spots" holds them as JSON text: [[x, y, label], …]
        def read(raw, _names = nil)
          spots = parsed(field(raw, "spots").to_s, most: MOST_BYTES)
          return UNREADABLE unless spots.is_a?(Array)
          if spots.length > most
            return Reading.refused("#{most} #{most == 1 ? "spot" : "spots"} is the most here. Take some away.")
          end

          readings = spots.map { |spot| read_spot(spot) }
          readings.find { |reading| !reading.ok? } || Reading.ok({ "spots" => readings.map(&:value) })
        end

        def blank_answer?(value) = value["spots"].empty?

        def missing = "Place a spot first."

        # rules.md, marks: max(0, (spots inside their region, at most n each − spots outside) / spots wanted).
        def mark(value)
          return nil unless keyed?

          [0r, Rational(hits(value["spots"]) - outside(value), wanted)].max
        end

        # Answers that were there before are not looked at again, while the regions are the same;
        # they are known by their object, of which every answer has its own.
        def gathered(values, before: nil, **)
          given = values.each_value.reject { |value| blank_answer?(value) }
          known = before && before.regions.map(&:region) == regions ? before.found : {}
          found = {}.compare_by_identity
          all = given.map { |value| found[value] ||= known[value] || found_out(value) }
          summed(given, all, found, heat(found, before))
        end

        # In percent of the way from the left and from the top.
        def plain(value)
          value["spots"].map do |spot|
            place = "#{(spot["x"] * 100).round} % across, #{(spot["y"] * 100).round} % down"
            spot["label"].to_s.empty? ? place : "#{spot["label"]}: #{place}"
          end.join("; ")
        end

        # In the regions when known, else near them or anywhere.
        def imagine(student, random)
          places = regions.flat_map { |region| [region] * region.wanted }
          places = Array.new(1 + random.rand(most)) if places.empty?
          spots = places.first(most).each_with_index.map do |region, number|
            known = region && student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)
            x, y = region ? region.middle : [0.5, 0.45]
            reach = known ? 0.03 : 0.22
            { "x" => stray(x, reach, random), "y" => stray(y, reach, random), "label" => labels? ? sample(number) : "" }
          end
          { "spots" => spots }
        end

        private

        def prepare
          @regions = settings["regions"].filter_map { |region| Region.read(region) }.freeze
        end

        def look(form)
          labels = form.key?("labels") ? form["labels"] == "1" : labels?
          { "mark" => MARKS.include?(form["mark"]) ? form["mark"] : mark_kind, "labels" => labels,
            "colour" => COLOURS.key?(form["colour"]) ? form["colour"] : settings["colour"] }
        end

        def read_regions(form)
          return Reading.ok(settings["regions"]) unless form.key?("regions")

          raw = parsed(form["regions"].to_s, most: MOST_BYTES)
          return Reading.refused("The regions could not be read. Reload the page.") unless raw.is_a?(Array)
          return Reading.refused("#{MOST_REGIONS} regions is the most a picture can have.") if raw.length > MOST_REGIONS

          read = raw.map { |region| Region.read(region) }
          return Reading.refused("A region has to lie on the picture. Move it back.") unless read.all?

          Reading.ok(read.map(&:to_document))
        end

        def read_spot(spot)
          return UNREADABLE unless spot.is_a?(Array) && spot.length.between?(2, 3)

          x, y, label = spot
          return UNREADABLE unless [x, y].all? { |number| number.is_a?(Numeric) && number.between?(0, 1) }

          Text.read(label, limit: LABEL_LIMIT, what: "A name", lines: false).map do |name|
            { "x" => x.to_f.round(PLACES), "y" => y.to_f.round(PLACES), "label" => labels? ? name : "" }
          end
        end

        def outside(value) = value["spots"].count { |spot| regions.none? { |region| region.cover?(spot["x"], spot["y"]) } }

        # What a density of these answers can be built upon: one of answers that are all still there.
        def heat(found, before)
          return {} unless before && before.found.each_key.all? { |value| found.key?(value) }

          { older: { heat: before.heat.except(:older), found: before.found } }
        end

        # @param all [Array<Hash>] what was found out of each answer given
        def summed(given, all, found, heat)
          rows = regions.each_with_index.map { |region, place| row(region, all.map { |each| each[:inside][place] }) }
          Tally.new(spots: given.flat_map do |value|
            value["spots"]
          end, answered: given.length, found: found.freeze, regions: rows, heat: heat,
                    right: (all.count { |each| each[:mark] == 1 } if keyed?), outside: all.sum { |each| each[:outside] }).freeze
        end

        def row(region, inside) = Row.new(region: region, inside: inside.sum, seats: inside.count(&:positive?)).freeze

        def found_out(value)
          inside = regions.map { |region| value["spots"].count { |spot| region.cover?(spot["x"], spot["y"]) } }
          { inside: inside, outside: outside(value), mark: mark(value) }
        end

        # The most spots that can be given to regions they lie in, none to more than one and no
        # region getting more than it wants (a bipartite matching by augmenting paths).
        def hits(spots)
          slots = regions.flat_map { |region| [region] * region.wanted }
          taken = {}
          spots.each_index.count { |place| give(place, spots, slots, taken, {}) }
        end

        def give(place, spots, slots, taken, seen)
          slots.each_index.any? do |slot|
            next false if seen[slot] || !slots[slot].cover?(spots[place]["x"], spots[place]["y"])

            seen[slot] = true
            next false unless taken[slot].nil? || give(taken[slot], spots, slots, taken, seen)

            taken[slot] = place
            true
          end
        end

        def stray(middle, reach, random) = (middle + (Practice::Student.normal(random) * reach)).clamp(0.01, 0.99).round(PLACES)

        def sample(number)
          names = regions.map(&:name).reject(&:empty?)
          names.empty? ? "here" : names[number % names.length]
        end
      end
    end
  end
end

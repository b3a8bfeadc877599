# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Picks one or several options. An option is text, a picture or both; where the
      # options stand on the slide itself ("lettered"), it is only a letter. A value is
      # {"options" => [ids]} in the order the options stand; where students are asked how sure
      # they are, with "sure" => a place in Sureness::LEVELS, or nil.
      class Choice < Prompt
        Option = Struct.new(:id, :letter, :text, :picture, :key, keyword_init: true) do
          # What it is called where no picture can be shown.
          def name = text.empty? ? picture&.alt.to_s : text
        end
        Row = Struct.new(:option, :count, :share, keyword_init: true)
        # sure:: [Sureness] one each of Sureness::LEVELS, nil where it was not asked
        Tally = Struct.new(:rows, :answered, :right, :sure, keyword_init: true)

        AGREE = ["Strongly agree", "Agree", "Neither", "Disagree", "Strongly disagree"].freeze

        MOST_OPTIONS = 12
        OPTION_LIMIT = 200

        def self.label = "Choice"
        def self.place = 1
        def self.purpose = "Pick one or several options"
        def self.charted? = true
        def self.keyable? = true

        def self.on_the_spot
          { "Yes or no" => %w[Yes No], "A to D" => [""] * 4, "How sure?" => ["Sure", "Nearly sure", "Not yet"],
            "Agree or not" => AGREE }
            .transform_values { |texts| { "options" => options(texts), "poll" => true, "lettered" => texts.all?(&:empty?) } }
        end

        def self.blank
          { "options" => options([""] * 4), "made" => 4, "keys" => [], "several" => false, "partial" => false,
            "shuffle" => false, "lettered" => false, "sure" => false }
        end

        # Where the slide is a picture and has no words, the options will stand on it.
        def self.fitting(slide)
          { "lettered" => !slide.picture.nil? && slide.arrangement == "full" && slide.text.empty? }
        end

        def self.options(texts) = texts.each_with_index.map { |text, place| { "id" => "o#{place + 1}", "text" => text } }

        def instruction = several? ? "Choose all that fit" : "Choose one"

        # @param form [Hash] "option_ids" and "option_texts" side by side, "option_alts"
        #   by id, "keys", "several", "partial", "shuffle", "lettered", "sure", and "do" => "add",
        #   "remove:ID", "unpicture:ID", "earlier:ID", "yes_no", "true_false" or "agree"
        def edited(form)
          read_common(form).and_then do |common|
            read_options(form).map do |options|
              changed = arranged(options, form["do"].to_s)
              ids = changed["options"].map { |option| option["id"] }
              keys = Array(form["keys"]).map(&:to_s) & ids
              several = form["several"] == "1"
              with_settings(common.merge(changed).merge("keys" => keys, "several" => several,
                                                        "partial" => several && form["partial"] == "1",
                                                        "shuffle" => form["shuffle"] == "1",
                                                        "lettered" => form["lettered"] == "1",
                                                        "sure" => form.fetch("sure", sure? ? "1" : "0") == "1"))
            end
          end
        end

        def self.from_row(...) = SheetRow.read(...)

        # The same question with a picture on one option.
        # @return [Reading]
        def picturing(option_id, picture)
          known = settings["options"].any? { |option| option["id"] == option_id }
          return Reading.refused("That option is gone. Reload the page.") unless known

          Reading.ok(with_settings("lettered" => false, "options" => settings["options"].map do |option|
            option["id"] == option_id ? option.merge("picture" => picture.to_document) : option
          end))
        end

        def problems
          return super if lettered?

          names = options.map { |option| [option.text, option.picture&.file] }
          filled = names.reject { |text, file| text.empty? && file.nil? }
          [("fewer than two options" if filled.length < 2), ("an option is empty" if filled.length < names.length),
           ("two options are the same" if filled.uniq!)].compact + super
        end

        def keyed? = settings["keys"].any?

        def shape = settings["options"].map { |option| option["id"] }

        def words = lettered? ? 0 : options.sum { |option| Text.words(option.text) }

        def row_options = settings["options"].map { |option| option["text"] }

        def row_right = options.select(&:key).map(&:letter).join(" ")

        def row_pictures = lettered? ? {} : options.select(&:picture).to_h { |option| [option.letter, option.picture] }

        def row_slots = options.to_h { |option| [option.letter, option.id] }

        def rules = SheetRow.rules(self)

        def searchable = super + options.map(&:name)

        def several? = settings["several"]

        def partial? = settings["partial"]

        def pictured? = true

        # Whether students say how sure they are.
        def sure? = settings["sure"]

        # Whether each seat gets the options in an order of its own, and then no letters.
        def shuffle? = settings["shuffle"] && !lettered?

        # Whether the options stand on the slide, and students choose among letters.
        def lettered? = settings["lettered"]

        def options
          settings["options"].each_with_index.map do |option, place|
            letter = ("A".ord + place).chr
            Option.new(id: option["id"], letter: letter, text: lettered? ? "" : option["text"],
                       picture: (Picture.from_document(option["picture"]) unless lettered?),
                       key: settings["keys"].include?(option["id"])).freeze
          end
        end

        # @param order [Integer, nil] which of the orders of a shuffled question; nil is as written
        def ordered_options(order) = order && shuffle? ? options.shuffle(random: Random.new(order)) : options

        def part_ids = shape

        def read(raw, names = Room::Handles::PLAIN)
          return Reading.refused("That answer could not be read. Choose again.") unless raw.is_a?(Hash)

          picked = Array(raw["options"]).uniq
          picked = picked.map { |name| names.item(name) } if shuffle?
          return Reading.refused("That option isn't on this slide. Choose again.") unless (picked - shape).empty?
          return Reading.refused("Choose just one option.") if picked.length > 1 && !several?

          Reading.ok({ "options" => shape & picked }.merge(sure? ? { "sure" => Sureness.read(field(raw, "sure")) } : {}))
        end

        def blank_answer?(value) = value["options"].empty?

        def missing = "Choose an answer first."

        # rules.md, marks: max(0, (hits - wrong picks) / keys) with partial credit. Where one
        # option is chosen and several are right, any of them is.
        def mark(value)
          return nil unless keyed?

          keys = settings["keys"]
          picked = value["options"]
          return Rational((picked & keys).length) unless several?
          return Rational(((keys - picked) | (picked - keys)).empty? ? 1 : 0) unless partial?

          hits = (picked & keys).length
          [Rational(0), Rational(hits - (picked - keys).length, keys.length)].max
        end

        # rules.md, tallies: count and share of those who answered.
        def tally(values)
          answered = values.reject { |value| blank_answer?(value) }
          counts = answered.flat_map { |value| value["options"] }.tally
          marks = answered.map { |value| mark(value) } if keyed?
          rows = options.map { |option| row(option, counts.fetch(option.id, 0), answered.length) }
          Tally.new(answered: answered.length, right: marks&.count(1), rows: rows,
                    sure: (Sureness.of(answered, marks) if sure?)).freeze
        end

        def plain(value)
          picked = options.select { |option| value["options"].include?(option.id) }
          words = picked.map { |option| "#{option.letter} #{option.name}".strip }.join("; ")
          value["sure"] ? "#{words} (#{Sureness::LEVELS[value["sure"]].downcase})" : words
        end

        # A right answer with the chance of the Rasch model, never below guessing;
        # otherwise the first wrong options pull more than the last, and where several
        # may be chosen a part of the key comes with them.
        def imagine(student, random)
          knows = keyed? && student.knows?(settings["difficulty"] || 0.0, chance: 1.0 / options.length, random: random)
          picked = { "options" => imagined(knows, random) }
          sure? ? picked.merge("sure" => Sureness.imagine(knows, random)) : picked
        end

        private

        def imagined(knows, random)
          return several? ? shape & settings["keys"] : settings["keys"].first(1) if knows

          half_known = several? ? settings["keys"].select { random.rand < 0.6 } : []
          shape & (half_known | [stray(random)])
        end

        def row(option, count, answered)
          Row.new(option: option, count: count, share: answered.zero? ? 0r : Rational(count, answered)).freeze
        end

        def read_options(form)
          return Reading.ok(settings["options"]) unless form["option_ids"]

          ids = Array(form["option_ids"]).map(&:to_s)
          known = settings["options"].to_h { |option| [option["id"], option] }
          return Reading.refused("These options have changed meanwhile. Reload the page.") unless (ids - known.keys).empty?

          texts = Array(form["option_texts"])
          alts = form["option_alts"].is_a?(Hash) ? form["option_alts"] : {}
          readings = ids.each_with_index.map { |id, place| read_option(known[id], texts[place], alts[id]) }
          readings.find { |reading| !reading.ok? } || Reading.ok(readings.map(&:value))
        end

        def read_option(option, text, alt)
          Text.read(text, limit: OPTION_LIMIT, what: "An option", lines: false).and_then do |words|
            picture = option["picture"]
            next Reading.ok(option.merge("text" => words)) unless picture && alt

            Text.read(alt, limit: Picture::ALT_LIMIT, what: "A picture's description", lines: false)
                .map { |said| option.merge("text" => words, "picture" => picture.merge("alt" => said)) }
          end
        end

        # What is asked often, by the name of its button. How far one agrees is an opinion and has
        # no right answer.
        PRESETS = { "yes_no" => [%w[Yes No], {}], "true_false" => [%w[True False], {}],
                    "agree" => [AGREE, { "poll" => true }] }.freeze
        private_constant :PRESETS

        def arranged(options, action)
          made = settings["made"]
          verb, id = action.split(":", 2)
          texts, more = PRESETS[verb]
          return { "options" => self.class.options(texts), "made" => texts.length, **more } if texts

          place = options.index { |option| option["id"] == id }
          if verb == "add" && options.length < MOST_OPTIONS
            made += 1
            options += [{ "id" => "o#{made}", "text" => "" }]
          elsif place
            options = rearranged(options, place, verb)
          end
          { "options" => options, "made" => made }
        end

        def rearranged(options, place, verb)
          options = options.dup
          case verb
          when "remove" then options.delete_at(place) if options.length > 2
          when "earlier" then options.insert([place - 1, 0].max, options.delete_at(place))
          when "unpicture" then options[place] = options[place].except("picture")
          end
          options
        end

        def stray(random)
          ids = (shape - settings["keys"]).then { |wrong| wrong.empty? ? shape : wrong }
          weights = ids.each_index.map { |place| 1.0 / (place + 1) }
          point = random.rand * weights.sum
          ids.each_with_index { |id, place| return id if (point -= weights[place]) <= 0 }
          ids.last
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # Picks one or several options. An option is text, a picture or both; where the
        # options stand on the slide itself ("lettered"), it is only a letter. A value is
        # {"options" => [ids]} in the order the options stand; where students are asked how sure
        # they are, with "sure" => a place in Sureness::LEVELS, or nil.
        class Prompt < Core::Prompt
          Option = Struct.new(:id, :letter, :text, :picture, :key, keyword_init: true) do
            # What it is called where no picture can be shown.
            def name = text.empty? ? picture&.alt.to_s : text
          end
          AGREE = ["Strongly agree", "Agree", "Neither", "Disagree", "Strongly disagree"].freeze

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

          def problems
            return super if lettered?

            names = options.map { |option| [option.text, option.picture&.file] }
            filled = names.reject { |text, file| text.empty? && file.nil? }
            [("fewer than two options" if filled.length < 2), ("an option is empty" if filled.length < names.length),
             ("two options are the same" if filled.uniq!)].compact + super
          end

          def keyed? = settings["keys"].any?

          def shape = settings["options"].map { |option| option["id"] }

          def to_read = lettered? ? [] : options.map(&:text)

          def searchable = super + options.map(&:name)

          def several? = settings["several"]

          def partial? = settings["partial"]

          def pictured? = true

          def pictures = options.filter_map(&:picture)

          def one_touch? = !several? && !sure?

          # Whether students say how sure they are.
          def sure? = settings["sure"]

          # Whether each seat gets the options in an order of its own, and then no letters.
          def shuffle? = settings["shuffle"] && !lettered?

          def mixed = with_settings("shuffle" => true)

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

          def choices = options

          def picked(value) = value["options"]

          def chance = several? ? nil : Rational(settings["keys"].length, settings["options"].length)

          # @param order [Integer, nil] which of the orders of a shuffled question; nil is as written
          def ordered_options(order) = order && shuffle? ? options.shuffle(random: Random.new(order)) : options

          def part_ids = shape
        end
      end
    end
  end
end

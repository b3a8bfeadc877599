# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Writes a line or a paragraph. Never marked automatically. A value is
      # {"text" => "…"}.
      class Writing < Prompt
        Tally = Struct.new(:texts, :answered, keyword_init: true)

        WORD_LIMITS = (1..1000)
        ANSWER_LIMIT = 8_000

        def self.label = "Writing"
        def self.place = 3
        def self.purpose = "Write a line or a paragraph"

        def self.on_the_spot = { "A line" => { "size" => "line" }, "A paragraph" => {} }

        def self.blank
          { "size" => "paragraph", "word_limit" => nil, "samples" => [] }
        end

        def instruction
          text = line? ? "Write a line" : "Write your answer"
          if word_limit
            "#{text}, at most #{word_limit} #{word_limit == 1 ? "word" : "words"}"
          else
            text
          end
        end

        # @param form [Hash] "size" => "line" or "paragraph", "word_limit"
        def edited(form)
          read_common(form).and_then do |common|
            read_number(form["word_limit"], WORD_LIMITS, "The word limit", "words").map do |limit|
              with_settings(common.merge("word_limit" => limit,
                                         "size" => form["size"] == "line" ? "line" : "paragraph"))
            end
          end
        end

        # In a sheet the option columns hold answers a practice class may give.
        def row_options = settings["samples"]

        def rules = [("one line" if line?), ("at most #{word_limit} words" if word_limit)].compact

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          limit = rules.filter_map { |rule| rule[/\Aat most (\d+) words?\z/, 1] }.first
          samples = options.reject(&:empty?).map { |text| text[0, 500] }
          new(id: id, settings: { "samples" => samples })
            .edited(common.merge("size" => rules.include?("one line") ? "line" : "paragraph", "word_limit" => limit))
        end

        def line? = settings["size"] == "line"

        def word_limit = settings["word_limit"]

        def read(raw)
          Text.read(field(raw, "text"), limit: ANSWER_LIMIT, what: "That answer", lines: !line?).and_then do |text|
            words = text.split.length
            if word_limit && words > word_limit
              Reading.refused("That is #{words} words; #{word_limit} is the most. Shorten it, then hand it in.")
            else
              Reading.ok({ "text" => text })
            end
          end
        end

        def blank_answer?(value) = value["text"].empty?

        def tally(values)
          texts = values.map { |value| value["text"] }.reject(&:empty?)
          Tally.new(texts: texts, answered: texts.length).freeze
        end

        def plain(value) = value["text"]

        # Sentences come from the demo lesson's small set, generic ones otherwise.
        def imagine(_student, random)
          samples = settings["samples"]
          samples = GENERIC if samples.empty?
          text = samples[random.rand(samples.length)]
          { "text" => word_limit ? text.split.first(word_limit).join(" ") : text }
        end

        GENERIC = ["I think it is because of the weather.", "Not sure yet, but the second picture helps.",
                   "It changes with the season.", "Because the food is somewhere else then.",
                   "We saw this last week at the window."].freeze
        private_constant :GENERIC
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Writes a line, a paragraph, an equation (LaTeX), or several boxes with a label each. Never
      # marked automatically. A value is {"text" => "…"}, with boxes also {"boxes" => ["…"]}, of
      # which the text is all in one.
      class Writing < Prompt
        # parts:: [Part], one a box, or just one
        Tally = Struct.new(:answered, :parts, keyword_init: true)
        # label:: of the box, or nil; grouping:: Tallies::Grouping of what stands in it, and
        # groups:: those of it that are to be seen; key_terms:: Tallies::KeyTerms of that
        Part = Struct.new(:label, :grouping, :groups, :key_terms, keyword_init: true)

        SIZES = { "line" => "One line", "paragraph" => "A paragraph", "equation" => "An equation" }.freeze
        MOST_BOXES = 5
        LABEL_LIMIT = 60

        WORD_LIMITS = (1..1000)
        ANSWER_LIMIT = 8_000
        # Groups on a page, with one box and with several.
        ON_A_PAGE = 15
        ON_A_PAGE_EACH = 6

        def self.label = "Writing"
        def self.place = 3
        def self.purpose = "Write a line, a paragraph or an equation"
        def self.charted? = true

        def self.on_the_spot = { "A line" => { "size" => "line" }, "A paragraph" => {} }

        def self.blank
          { "size" => "paragraph", "word_limit" => nil, "boxes" => [], "samples" => [] }
        end

        def instruction
          return "Write an equation" if equation?
          return "Fill the boxes#{limit_words}" if boxes.any?

          "#{line? ? "Write a line" : "Write your answer"}#{limit_words}"
        end

        # @param form [Hash] "size" => a key of SIZES, "word_limit", "boxes" => labels with commas between
        def edited(form)
          read_common(form).and_then do |common|
            read_number(form.fetch("word_limit", word_limit), WORD_LIMITS, "The word limit", "words").and_then do |limit|
              read_labels(form).map do |labels|
                size = SIZES.key?(form["size"]) ? form["size"] : settings["size"]
                with_settings(common.merge("word_limit" => limit, "size" => size, "boxes" => labels))
              end
            end
          end
        end

        # In a sheet the option columns hold answers a practice class may give.
        def row_options = settings["samples"]

        def rules
          [("one line" if line?), ("equation" if equation?), ("at most #{word_limit} words" if word_limit),
           ("boxes #{boxes.map { |label| RowRules.quote(label) }.join(" / ")}" if boxes.any?)].compact
        end

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          limit = rules.filter_map { |rule| rule[/\Aat most (\d+) words?\z/, 1] }.first
          samples = options.reject(&:empty?).map { |text| text[0, 500] }
          size = { "one line" => "line", "equation" => "equation" }.find { |rule, _| rules.include?(rule) }&.last || "paragraph"
          labels = rules.texts("boxes").map { |label| label.tr(",", " ") }
          new(id: id, settings: { "samples" => samples })
            .edited(common.merge("size" => size, "word_limit" => limit, "boxes" => labels.join(",")))
        end

        def line? = settings["size"] == "line"

        def word_limit = settings["word_limit"]

        def equation? = settings["size"] == "equation"

        # @return [Array<String>] labels of the boxes; empty when there is just one
        def boxes = equation? ? [] : settings["boxes"]

        def read(raw, _names = nil)
          return read_boxes(raw) if boxes.any?

          read_text(field(raw, "text"), "That").map { |text| { "text" => text } }
        end

        def blank_answer?(value) = value["text"].empty?

        def missing = "Write something first."

        def gathered(values, before: nil, **)
          parts = [nil, *boxes].last([boxes.length, 1].max).each_with_index.map do |label, place|
            texts = values.each_value.map { |value| label ? value["boxes"][place] : value["text"] }.reject(&:empty?)
            part(label, texts, before&.parts&.at(place))
          end
          Tally.new(answered: values.each_value.count { |value| !blank_answer?(value) }, parts: parts).freeze
        end

        def pages(tally, _way) = tally.parts.map { |part| pages_of(part.groups.length, on_a_page) }.max

        def page(tally, _way, number)
          parts = tally.parts.map do |part|
            Part.new(**part.to_h, groups: part.groups.drop(number * on_a_page).first(on_a_page)).freeze
          end
          Tally.new(answered: tally.answered, parts: parts).freeze
        end

        def plain(value) = value["text"]

        # Sentences come from the demo lesson's small set, generic ones otherwise.
        def imagine(_student, random)
          samples = settings["samples"]
          samples = GENERIC if samples.empty?
          texts = Array.new([boxes.length, 1].max) { samples[random.rand(samples.length)] }
          texts = texts.map { |text| text.split.first(word_limit).join(" ") } if word_limit
          boxes.any? ? { "text" => all_in_one(texts), "boxes" => texts } : { "text" => texts.first }
        end

        GENERIC = ["I think it is because of the weather.", "Not sure yet, but the second picture helps.",
                   "It changes with the season.", "Because the food is somewhere else then.",
                   "We saw this last week at the window."].freeze
        private_constant :GENERIC

        private

        def part(label, texts, before)
          grouping = Tallies::Grouping.new(texts, before: before&.grouping)
          Part.new(label: label, grouping: grouping, groups: grouping.groups,
                   key_terms: Tallies::KeyTerms.new(texts, before: before&.key_terms)).freeze
        end

        def on_a_page = boxes.length > 1 ? ON_A_PAGE_EACH : ON_A_PAGE

        def limit_words
          return "" unless word_limit

          ", at most #{word_limit} #{word_limit == 1 ? "word" : "words"}#{" each" if boxes.any?}"
        end

        def read_labels(form)
          return Reading.ok(settings["boxes"]) unless form.key?("boxes")

          Text.read(form["boxes"], limit: LABEL_LIMIT * MOST_BOXES, what: "The labels", lines: false).and_then do |text|
            labels = text.split(",").map(&:strip).reject(&:empty?).uniq
            next Reading.refused("#{MOST_BOXES} boxes is the most.") if labels.length > MOST_BOXES

            Reading.ok(labels.map { |label| label[0, LABEL_LIMIT] })
          end
        end

        def read_text(raw, what)
          Text.read(raw, limit: ANSWER_LIMIT, what: "#{what} answer", lines: settings["size"] == "paragraph").and_then do |text|
            words = text.split.length
            next Reading.ok(text) unless word_limit && words > word_limit

            Reading.refused("#{what} is #{words} words; #{word_limit} is the most. Shorten it, then hand it in.")
          end
        end

        def read_boxes(raw)
          readings = boxes.each_with_index.map { |label, place| read_text(field(raw, "box#{place}"), "“#{label}”") }
          refused = readings.find { |reading| !reading.ok? }
          return refused if refused

          texts = readings.map(&:value)
          Reading.ok({ "text" => all_in_one(texts), "boxes" => texts })
        end

        def all_in_one(texts)
          boxes.zip(texts).reject { |_, text| text.empty? }.map { |label, text| "#{label}: #{text}" }.join("\n")
        end
      end
    end
  end
end

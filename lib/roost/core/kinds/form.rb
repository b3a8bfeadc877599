# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # What a teacher says of a question, in the builder and where its key is corrected.
      class Form < Part
        TIME_LIMITS = (5..600)
        POINTS = (0..1000)
        TEXTS = { "explanation" => ["The explanation", 2000], "hint" => ["The hint", 500] }.freeze
        TAGS_LIMIT = 600
        MOST_TAGS = 12
        ANSWERED = "Answers have been given to this question as it is. Only what is right can change now."

        # The question as the form has it.
        # @param form [Hash] what each field says; what it leaves out stays
        # @return [Reading] of the prompt
        def edited(form) = read_common(form).map { |common| prompt.with_settings(common) }

        # The question with a picture on one of its parts.
        # @param part_id [String]
        # @param picture [Picture]
        # @return [Reading] of the prompt
        def picturing(_part_id, _picture) = Reading.refused("This question has no parts with pictures.")

        # The same question with another key, for a session in which it has been answered.
        # @param form [Hash] the fields of the kind's view `key`, and "points"
        # @return [Reading] of the prompt
        def corrected(form)
          edited(form).and_then do |changed|
            changed.shape == prompt.shape ? Reading.ok(changed) : Reading.refused(ANSWERED)
          end
        end

        private

        # The settings every kind has.
        # @return [Reading] of a Hash with keys of Prompt::COMMON
        def read_common(form)
          limit = form.fetch("time_limit", prompt.time_limit)
          read_number(limit, TIME_LIMITS, "The time limit", "seconds").and_then do |time_limit|
            read_number(form.fetch("points", prompt.settings["points"]), POINTS, "Points", "points").and_then do |points|
              read_texts(form).map do |texts|
                { "time_limit" => time_limit, "points" => points }.merge(texts, read_tags(form), read_choices(form))
              end
            end
          end
        end

        def read_texts(form)
          texts = TEXTS.select { |name, _| form.key?(name) }.to_h do |name, (what, limit)|
            [name, Text.read(form[name], limit: limit, what: what)]
          end
          texts["rubric"] = read_rubric(form["rubric"]) if form.key?("rubric")
          refused = texts.values.find { |reading| !reading.ok? }
          refused || Reading.ok(texts.transform_values(&:value))
        end

        # As it was typed, where it can be read.
        def read_rubric(typed)
          Grading::Rubric.read(typed).and_then { Text.read(typed, limit: Grading::Rubric::LIMIT, what: "The rubric") }
        end

        def read_tags(form)
          %w[subtopics standards].select { |name| form.key?(name) }.to_h do |name|
            text = Text.read(form[name], limit: TAGS_LIMIT, what: "The tags", lines: false)
            [name, text.value.to_s.split(/[,;]/).map(&:strip).reject(&:empty?).uniq.first(MOST_TAGS)]
          end
        end

        def read_choices(form)
          choices = {}
          %w[poll practice closing rubric_shown].each { |name| choices[name] = form[name] == "1" if form.key?(name) }
          choices["bloom"] = Core::Prompt::BLOOM.include?(form["bloom"]) ? form["bloom"] : "" if form.key?("bloom")
          choices["depth"] = Core::Prompt::DEPTHS.keys.find { |depth| depth.to_s == form["depth"] } if form.key?("depth")
          choices["may_change"] = Core::Prompt::MAY_CHANGE[form["may_change"]] if form.key?("may_change")
          choices
        end

        def read_number(raw, range, what, unit)
          text = raw.to_s.strip
          return Reading.ok(nil) if text.empty?

          number = Integer(text, 10, exception: false)
          return Reading.ok(number) if number && range.cover?(number)

          Reading.refused("#{what} can be #{range.min} to #{range.max} #{unit}, or empty.")
        end

        # Boxes that are ticked or not; one that the form leaves out stays.
        # @return [Hash{String=>Boolean}]
        def read_ticks(form, *names)
          names.to_h { |name| [name, form.fetch(name, prompt.settings[name] ? "1" : "0") == "1"] }
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Completes a text, by typing or from a word bank. The text is written with its gaps:
      # "Swallows leave in [[September | autumn]]." A value is {"gaps" => ["…", …]}, one text
      # a gap, "" for an empty one.
      class Gaps < Prompt
        # right:: how many filled it rightly; wrong:: the commonest wrong filling with its
        # count, nil when there is none; fillings:: the commonest of all with their counts
        Row = Struct.new(:accepted, :right, :answered, :wrong, :fillings, keyword_init: true)
        # fillings, wholes:: Tallies::Count of [gap, filling] and of all fillings together;
        # compared:: for each gap which fillings are right, under these settings
        Tally = Struct.new(:rows, :answered, :right, :fillings, :wholes, :compared, :settings, keyword_init: true)

        GAP = /\[\[(.+?)\]\]/m
        TEXT_LIMIT = 2000
        MOST_GAPS = 20
        ACCEPTED_LIMIT = 80
        DISTRACTORS_LIMIT = 400
        MOST_DISTRACTORS = 12
        ANSWER_LIMIT = 120
        # Fillings of a gap that are shown while answers are open.
        MOST_FILLINGS = 3

        def self.label = "Gaps"
        def self.place = 7
        def self.purpose = "Complete a text, by typing or from a word bank"
        def self.charted? = true
        def self.keyable? = true
        def self.on_the_spot = {}

        def self.blank
          { "text" => "", "bank" => false, "distractors" => [], "accents" => true, "slip" => true }
        end

        def instruction = bank? ? "Choose a word for each gap" : "Fill each gap"

        # @param form [Hash] "text" with gaps, "bank", "distractors" with commas between,
        #   "accents", "slip"
        def edited(form)
          read_common(form).and_then do |common|
            Text.read(form.fetch("text", text), limit: TEXT_LIMIT, what: "The text with gaps").and_then do |text|
              distractors(form).and_then do |words|
                ticks = %w[bank accents slip].to_h { |name| [name, form.fetch(name, settings[name] ? "1" : "0") == "1"] }
                with_settings(common.merge(ticks, "text" => text, "distractors" => words)).checked
              end
            end
          end
        end

        # @return [Reading] of itself, refused when there is too much in it
        def checked
          return Reading.refused("#{MOST_GAPS} gaps is the most a text can have.") if gaps.length > MOST_GAPS

          long = gaps.flatten.find { |word| word.length > ACCEPTED_LIMIT }
          return Reading.ok(self) unless long

          Reading.refused("“#{long[0, 30]}…” is too long for a gap: #{ACCEPTED_LIMIT} characters is the most.")
        end

        def problems = gaps.empty? ? ["no gap yet: write [[word]]"] : []

        def text = settings["text"]

        def bank? = settings["bank"]

        def keyed? = gaps.any?

        def shape = gaps.length

        def shuffle? = bank?

        # @return [Array<Array<String>>] the accepted texts of each gap
        attr_reader :gaps

        # The text in parts: a String as it stands, an Integer for the gap of that number from 0.
        # @return [Array<String, Integer>]
        def parts
          number = -1
          text.split(/(\[\[.+?\]\])/m).map do |part|
            inside = part[/\A\[\[(.+?)\]\]\z/m, 1]
            inside.to_s.split("|").any? { |word| !word.strip.empty? } ? number += 1 : part
          end
        end

        # The words to choose from: one for each gap, and the distractors.
        # @param order [Integer, nil] which order they come in
        def bank_words(order)
          (gaps.map(&:first) + settings["distractors"]).uniq.sort.shuffle(random: Random.new(order || 0))
        end

        def words = Text.words(text)

        def searchable = super + [text]

        def row_options = [text, *settings["distractors"]]

        def rules
          [("word bank" if bank?), ("accents don't matter" unless settings["accents"]),
           ("no slips" unless settings["slip"])].compact
        end

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          text, *distractors = options
          return Reading.refused("“Option A” has no gap; write [[word]]") unless text.match?(GAP)

          ticks = { "bank" => rules.include?("word bank"), "slip" => !rules.include?("no slips"),
                    "accents" => !rules.include?("accents don't matter") }.transform_values { |ticked| ticked ? "1" : "0" }
          others = distractors.reject(&:empty?).join(",")
          new(id: id, settings: {}).edited(common.merge(ticks, "text" => text, "distractors" => others))
        end

        # @param raw [Hash] "gap0", "gap1", …
        def read(raw, _names = nil)
          readings = gaps.each_index.map do |number|
            Text.read(field(raw, "gap#{number}"), limit: ANSWER_LIMIT, what: "What stands in gap #{number + 1}", lines: false)
          end
          readings.find { |reading| !reading.ok? } || Reading.ok({ "gaps" => readings.map(&:value) })
        end

        def blank_answer?(value) = value["gaps"].all?(&:empty?)

        def missing = "Fill a gap first."

        # rules.md, marks: the share of gaps that are right.
        def mark(value)
          return nil unless keyed?

          Rational(right_gaps(value).count(true), gaps.length)
        end

        # @return [Array<Boolean>] for each gap whether it is filled rightly
        def right_gaps(value) = gaps.each_with_index.map { |accepted, number| right?(filling(value, number), accepted) }

        # Many put the same: each filling is compared once.
        def gathered(values, before: nil, **)
          fillings = Tallies::Count.new(values, before: before&.fillings) do |value|
            blank_answer?(value) ? [] : gaps.each_index.map { |number| [number, filling(value, number)] }
          end
          wholes = Tallies::Count.new(values, before: before&.wholes) { |value| [value["gaps"]] }
          compared = before && before.settings == settings ? before.compared : gaps.map { {} }
          rows = rows(fillings, compared)
          right = wholes.to_h.sum { |whole, count| whole.each_with_index.all? { |one, gap| compared[gap][one] } ? count : 0 }
          Tally.new(rows: rows, answered: fillings.answered, right: right, fillings: fillings, wholes: wholes,
                    compared: compared, settings: settings).freeze
        end

        def plain(value) = value["gaps"].map { |filling| filling.empty? ? "–" : filling }.join("; ")

        # Each gap by itself: known, or filled with what belongs elsewhere.
        def imagine(student, random)
          fillings = gaps.map do |accepted|
            next accepted.first if student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)

            others = bank_words(nil) - [accepted.first]
            others.empty? ? accepted.first.reverse : others[random.rand(others.length)]
          end
          { "gaps" => fillings }
        end

        private

        def prepare
          found = text.scan(GAP).map { |(inside)| inside.split("|").map(&:strip).reject(&:empty?) }
          @gaps = found.reject(&:empty?).freeze
        end

        def filling(value, number) = value["gaps"][number].to_s

        # @param compared [Array<Hash>] for each gap filling to whether it is right; what is new is added
        def rows(fillings, compared)
          by_gap = fillings.to_h.group_by { |(number, _filling), _count| number }
          gaps.each_with_index.map do |accepted, number|
            counts = by_gap.fetch(number, []).map { |(_number, filling), count| [filling, count] }
            known = compared[number]
            right, wrong = counts.partition { |filling, _| known.fetch(filling) { known[filling] = right?(filling, accepted) } }
            Row.new(accepted: accepted, right: right.sum(&:last), answered: fillings.answered, wrong: commonest(wrong),
                    fillings: counts.sort_by { |text, times| [-times, text] }.first(MOST_FILLINGS)).freeze
          end
        end

        def right?(filling, accepted)
          Likeness.accepted?(filling, accepted, accents: settings["accents"], slip: settings["slip"])
        end

        def distractors(form)
          return Reading.ok(settings["distractors"]) unless form.key?("distractors")

          Text.read(form["distractors"], limit: DISTRACTORS_LIMIT, what: "The other words", lines: false).map do |words|
            words.split(/[,;]/).map(&:strip).reject(&:empty?).uniq.first(MOST_DISTRACTORS)
          end
        end

        # @param wrong [Array<Array(String, Integer)>] fillings with how many put them
        # @return [Array(String, Integer), nil] in its commonest spelling
        def commonest(wrong)
          alike = wrong.reject { |filling, _| filling.empty? }.group_by { |filling, _| Likeness.plain(filling) }.values
          most = alike.max_by { |spellings| spellings.sum(&:last) }
          most && [most.max_by(&:last).first, most.sum(&:last)]
        end
      end
    end
  end
end

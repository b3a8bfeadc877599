# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Gives one to five single words or short phrases. Never keyed. A value is
      # {"words" => ["…", …]}.
      class Words < Prompt
        # key:: what is the same of all spellings; text:: in its commonest spelling;
        # names:: of those who gave it, for the teacher only
        Row = Struct.new(:key, :text, :count, :names, keyword_init: true)
        # removed:: [Row] taken away for all by the teacher; cloud:: [Tallies::Cloud::Word]
        Tally = Struct.new(:rows, :removed, :cloud, :answered, keyword_init: true)

        CLOUD = { width: 760, height: 340 }.freeze

        MOST = (1..5)
        WORD_LIMIT = 40
        ENDS = /\A[[:punct:]\s]+|[[:punct:]\s]+\z/
        GENERIC = %w[birds water winter food wind far home reeds feathers cold south river].freeze
        private_constant :GENERIC

        def self.label = "Words"
        def self.place = 4
        def self.purpose = "Give a few single words"
        def self.charted? = true
        def self.on_the_spot = { "Three words" => {}, "One word" => { "most" => 1 } }

        def self.blank = { "most" => 3, "samples" => [] }

        BETWEEN = /[,;\n]/
        LIST_BYTES = 1_000

        # How two words are compared: NFKC, case folding, without punctuation at the ends.
        def self.same(word) = word.unicode_normalize(:nfkc).downcase(:fold).gsub(/[[:space:]]+/, " ").gsub(ENDS, "")

        def instruction = most == 1 ? "Give one word" : "Give up to #{most} words"

        # @param form [Hash] "most"
        def edited(form)
          read_common(form).and_then do |common|
            read_number(form.fetch("most", most.to_s), MOST, "The number of words", "words").map do |number|
              with_settings(common.merge("most" => number || most))
            end
          end
        end

        def most = settings["most"]

        def row_options = settings["samples"]

        def rules = ["up to #{most} words"]

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          number = rules.filter_map { |rule| rule[/\Aup to (\d) words?\z/, 1] }.first
          samples = options.reject(&:empty?).map { |text| text[0, WORD_LIMIT] }
          new(id: id, settings: { "samples" => samples }).edited(common.merge("most" => number.to_s))
        end

        # @param raw [Hash] "words", several, or with commas between; the same word twice counts once
        def read(raw, _names = nil)
          given = given(raw)
          return too_many unless given

          readings = given.map { |word| Text.read(word, limit: WORD_LIMIT, what: "A word", lines: false) }
          refused = readings.find { |reading| !reading.ok? }
          return refused if refused

          words = readings.map(&:value).reject { |word| Words.same(word).empty? }.uniq { |word| Words.same(word) }
          Reading.ok({ "words" => words.first(most) })
        end

        def too_many = Reading.refused("#{most} #{most == 1 ? "word" : "words"} is the most here. Take some out.")

        # What was given, word by word; nil where a list is too long: it is not cut, the student says which.
        def given(raw)
          fields = raw.is_a?(Hash) ? Array(raw["words"]) : []
          return nil if fields.length > MOST.max

          words = fields.flat_map { |text| apart(text) }
          words if words.count { |text| text != "" } <= [fields.length, most].max
        end

        # What was written into one field with commas between.
        def apart(text)
          return [text] unless text.is_a?(String) && text.bytesize <= LIST_BYTES && text.valid_encoding? && text.match?(BETWEEN)

          text.split(BETWEEN).map(&:strip).reject(&:empty?).first(MOST.max + 1)
        end
        private :too_many, :given, :apart

        def blank_answer?(value) = value["words"].empty?

        def missing = "Write a word first."

        # rules.md, tallies: counted by what is the same, shown in the commonest spelling. A word
        # keeps its place in the cloud while it can.
        def gathered(values, names: {}, curation: Room::Curation::BLANK, before: nil)
          same = Hash.new { |known, word| known[word] = Words.same(word) }
          given = values.flat_map { |seat_id, value| value["words"].map { |word| [same[word], word, seat_id] } }
          all = given.group_by(&:first).map { |key, entries| row(key, entries, names) }.sort_by { |row| [-row.count, row.text] }
          removed, rows = all.partition { |row| curation.removed?(row.key) }
          Tally.new(rows: rows, removed: removed, answered: values.count { |_, value| !blank_answer?(value) },
                    cloud: Tallies::Cloud.layout(rows, **CLOUD, before: before ? before.cloud : [])).freeze
        end

        def for_class(tally)
          bare = tally.rows.map { |row| Row.new(**row.to_h, names: []).freeze }
          Tally.new(**tally.to_h, rows: bare, removed: []).freeze
        end

        def plain(value) = value["words"].join(", ")

        # Common words more often than rare ones, as in any class.
        def imagine(_student, random)
          words = settings["samples"].empty? ? GENERIC : settings["samples"]
          count = 1 + random.rand(most)
          { "words" => Array.new(count) { words[(words.length * (random.rand**2)).floor] }.uniq }
        end

        private

        def row(key, entries, names)
          Row.new(key: key, text: commonest(entries.map { |entry| entry[1] }), count: entries.length,
                  names: entries.filter_map { |entry| names[entry[2]] }.sort).freeze
        end

        def commonest(spellings) = spellings.map { |word| word.gsub(ENDS, "") }.tally.max_by(&:last).first
      end
    end
  end
end

# frozen_string_literal: true

require "set"

module Roost
  module Core
    module Kinds
      module Words
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          # key:: what is the same of all spellings; text:: in its commonest spelling;
          # names:: of those who gave it, for the teacher only; place:: among all, as they came
          Row = Struct.new(:key, :text, :count, :names, :place, keyword_init: true)
          # removed:: [Row] taken away for all by the teacher; held:: [Row] that wait until she lets them through;
          # cloud:: [Tallies::Cloud::Word]
          Tally = Struct.new(:rows, :removed, :held, :cloud, :answered, keyword_init: true) do
            # A list that stands still while more come in.
            def as_they_came = rows.sort_by(&:place)
          end
          CLOUD = { width: 760, height: 340 }.freeze

          of_prompt :blank_answer?

          # rules.md, tallies: counted by what is the same, shown in the commonest spelling. A word
          # keeps its place in the cloud while it can.
          def gathered(values, names: {}, curation: Session::Curation::BLANK, before: nil, **)
            same = Hash.new { |known, word| known[word] = Prompt.same(word) }
            given = values.flat_map { |seat_id, value| value["words"].map { |word| [same[word], word, seat_id] } }
            given = given.group_by(&:first)
            places = places(given.keys, before)
            all = given.map { |key, entries| row(key, entries, names, places[key]) }.sort_by { |row| [-row.count, row.text] }
            removed, rows = all.partition { |row| curation.removed?(row.key) }
            doubtful = (values.each_value.flat_map { |value| value["held"].to_a } - curation.approved).to_set
            held, rows = rows.partition { |row| doubtful.include?(row.key) }
            Tally.new(rows: rows, removed: removed, held: held, answered: values.count { |_, value| !blank_answer?(value) },
                      cloud: Tallies::Cloud.layout(rows, **CLOUD, before: before ? before.cloud : [])).freeze
          end

          def for_class(tally)
            bare = tally.rows.map { |row| Row.new(**row.to_h, names: []).freeze }
            Tally.new(**tally.to_h, rows: bare, removed: [], held: []).freeze
          end

          def waiting(tally) = tally.held.length

          private

          # Those that were there keep their places; new ones come after them.
          # @return [Hash{String=>Integer}]
          def places(keys, before)
            known = before ? (before.rows + before.removed + before.held).to_h { |row| [row.key, row.place] }.slice(*keys) : {}
            known.merge((keys - known.keys).zip((known.values.max.to_i + 1)..).to_h)
          end

          def row(key, entries, names, place)
            Row.new(key: key, text: commonest(entries.map { |entry| entry[1] }), count: entries.length,
                    names: entries.filter_map { |entry| names[entry[2]] }.sort, place: place).freeze
          end

          def commonest(spellings) = spellings.map { |word| word.gsub(Prompt::ENDS, "") }.tally.max_by(&:last).first
        end
      end
    end
  end
end

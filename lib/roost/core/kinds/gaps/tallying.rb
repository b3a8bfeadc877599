# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          # right:: how many filled it rightly; wrong:: the commonest wrong filling with its
          # count, nil when there is none; fillings:: the commonest of all with their counts
          Row = Struct.new(:accepted, :right, :answered, :wrong, :fillings, keyword_init: true)
          # fillings, wholes:: Tallies::Count of [gap, filling] and of all fillings together;
          # compared:: for each gap which fillings are right, under these settings
          Tally = Struct.new(:rows, :answered, :right, :fillings, :wholes, :compared, :settings, keyword_init: true)
          # Fillings of a gap that are shown while answers are open.
          MOST_FILLINGS = 3

          of_prompt :blank_answer?, :gaps, :filling, :settings, :right?

          # Many put the same: each filling is compared once.
          def gathered(values, before: nil, **)
            fillings = Tallies::Count.new(values, before: before&.fillings) do |value|
              blank_answer?(value) ? [] : gaps.each_index.map { |number| [number, filling(value, number), held?(value, number)] }
            end
            wholes = Tallies::Count.new(values, before: before&.wholes) { |value| [value["gaps"]] }
            compared = before && before.settings == settings ? before.compared : gaps.map { {} }
            rows = rows(fillings, compared)
            right = wholes.to_h.sum { |whole, count| whole.each_with_index.all? { |one, gap| compared[gap][one] } ? count : 0 }
            Tally.new(rows: rows, answered: fillings.answered, right: right, fillings: fillings, wholes: wholes,
                      compared: compared, settings: settings).freeze
          end

          private

          def held?(value, number) = value["held"].to_a.include?(number.to_s)

          # @param compared [Array<Hash>] for each gap filling to whether it is right; what is new is added
          def rows(fillings, compared)
            by_gap = fillings.to_h.group_by { |(number, *), _count| number }
            gaps.each_with_index.map do |accepted, number|
              known = compared[number]
              right, wrong = by_gap.fetch(number, []).partition do |(_, filling), _|
                known.fetch(filling) { known[filling] = right?(filling, accepted) }
              end
              seen = listed(wrong, hide: true)
              Row.new(accepted: accepted, right: right.sum(&:last), answered: fillings.answered, wrong: commonest(seen),
                      fillings: (listed(right) + seen).sort_by { |text, times| [-times, text] }.first(MOST_FILLINGS)).freeze
            end
          end

          # @param hide [Boolean] whether what doesn't belong on a wall counts as if nothing had been written
          # @return [Array<Array(String, Integer)>] fillings with how many put them
          def listed(counts, hide: false)
            counts.each_with_object(Hash.new(0)) do |((_, filling, held), count), all|
              all[hide && held ? "" : filling] += count
            end.to_a
          end

          # @param wrong [Array<Array(String, Integer)>] fillings with how many put them
          # @return [Array(String, Integer), nil] in its commonest spelling
          def commonest(wrong)
            alike = wrong.reject { |filling, _| filling.empty? }.group_by { |filling, _| TextMatch.plain(filling) }.values
            most = alike.max_by { |spellings| spellings.sum(&:last) }
            most && [most.max_by(&:last).first, most.sum(&:last)]
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
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

          of_prompt :blank_answer?, :regions, :keyed?, :outside, :mark

          # Answers that were there before are not looked at again, while the regions are the same;
          # they are known by their object, of which every answer has its own.
          def gathered(values, before: nil, **)
            given = values.each_value.reject { |value| blank_answer?(value) }
            known = before && before.regions.map(&:region) == regions ? before.found : {}
            found = {}.compare_by_identity
            all = given.map { |value| found[value] ||= known[value] || found_out(value) }
            summed(given, all, found, heat(found, before))
          end

          private

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
        end
      end
    end
  end
end

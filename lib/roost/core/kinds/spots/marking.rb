# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # How right an answer to it is.
        class Marking < Kinds::Marking
          of_prompt :keyed?, :outside, :wanted, :regions

          # rules.md, marks: max(0, (spots inside their region, at most n each − spots outside) / spots wanted).
          def mark(value, steps: nil)
            return nil unless keyed?

            inside = hits(value["spots"])
            beside = outside(value)
            Step.note(steps, :hits_less_wrong, [0r, Rational(inside - beside, wanted)].max, hits: inside, wrong: beside,
of: wanted)
          end

          private

          # The most spots that can be given to regions they lie in, none to more than one and no
          # region getting more than it wants (a bipartite matching by augmenting paths).
          def hits(spots)
            slots = regions.flat_map { |region| [region] * region.wanted }
            taken = {}
            spots.each_index.count { |place| give(place, spots, slots, taken, {}) }
          end

          def give(place, spots, slots, taken, seen)
            slots.each_index.any? do |slot|
              next false if seen[slot] || !slots[slot].cover?(spots[place]["x"], spots[place]["y"])

              seen[slot] = true
              next false unless taken[slot].nil? || give(taken[slot], spots, slots, taken, seen)

              taken[slot] = place
              true
            end
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Talking pairs: those who are here, in pairs or threes, by chance. Nobody gets the same neighbour again as
      # long as that can be avoided: pairs of an even number go round by the circle method (as chess tournaments are
      # paired), which meets everybody once in n − 1 rounds; other sizes, and a class that has changed since, are
      # shuffled, and people change places as long as that lessens how often neighbours have met.
      class Pairing
        SIZES = (2..3)
        # Rounds that are remembered.
        MOST_ROUNDS = 60
        # How often is begun anew by chance, and how often two change places in one.
        TRIES = 6
        SWAPS = 3_000

        # @param ids [Array<Integer>] of seats
        # @param size [Integer] in SIZES
        # @param earlier [Array<Array<Array<Integer>>>] rounds of this session, each of groups
        # @param seed [Integer]
        # @return [Array<Array<Integer>>] groups of that size, one or two of another where that doesn't divide; those
        #   of nobody, or of one alone, are left out
        def self.of(ids, size:, earlier:, seed:) = ids.length < 2 ? [] : new(ids, size, earlier, seed).groups

        def initialize(ids, size, earlier, seed)
          @ids = ids.sort
          @size = size
          @random = Random.new(seed)
          @met = meetings(earlier)
        end

        def groups
          best = nil
          candidates.each do |groups|
            best = groups if best.nil? || cost(groups) < cost(best)
            break if cost(best).zero?
          end
          best.map(&:sort).shuffle(random: @random)
        end

        private

        def meetings(earlier)
          earlier.flatten(1).each_with_object(Hash.new(0)) do |group, met|
            group.combination(2) { |pair| met[pair.sort] += 1 }
          end
        end

        def cost(groups) = groups.sum { |group| group_cost(group) }

        def group_cost(group) = group.combination(2).sum { |pair| @met[pair.sort] }

        def candidates
          Enumerator.new do |all|
            circle.each { |groups| all << groups } if @size == 2 && @ids.length.even?
            TRIES.times { all << better(cut(@ids.shuffle(random: @random))) }
          end
        end

        # All n − 1 rounds of the circle method, in an order of chance that is the same for the same people.
        def circle
          first, *ring = @ids.shuffle(random: Random.new(@ids.sum))
          Array.new(ring.length) do |turn|
            row = [first, *ring.rotate(turn)]
            row.first(row.length / 2).zip(row.last(row.length / 2).reverse)
          end.shuffle(random: @random)
        end

        # As many groups of the size as there can be; who is left over makes one smaller or larger.
        def cut(ids)
          return pairs(ids) if @size == 2

          left = ids.length % 3
          twos = [left == 1 ? 2 : left / 2, ids.length / 2].min
          ids.first(twos * 2).each_slice(2).to_a + ids.drop(twos * 2).each_slice(3).to_a
        end

        def pairs(ids)
          groups = ids.each_slice(2).to_a
          groups[-2].concat(groups.pop) if groups.length > 1 && groups.last.length == 1
          groups
        end

        # Two of different groups change places, where that is for the better.
        def better(groups)
          costs = groups.map { |group| group_cost(group) }
          sum = costs.sum
          SWAPS.times do
            break if groups.length < 2 || sum.zero?

            sum -= gain(groups, costs)
          end
          groups
        end

        # @return [Integer] by how much less those of two groups have met, after a change for the better or as good
        def gain(groups, costs)
          places = [@random.rand(groups.length), @random.rand(groups.length)]
          return 0 if places.uniq.length == 1

          two = groups.values_at(*places)
          ends = two.map { |group| @random.rand(group.length) }
          swap(two, ends)
          after = two.map { |group| group_cost(group) }
          gain = costs.values_at(*places).sum - after.sum
          gain.negative? ? swap(two, ends) : places.zip(after) { |place, cost| costs[place] = cost }
          [gain, 0].max
        end

        def swap((one, other), (here, there))
          one[here], other[there] = other[there], one[here]
        end
      end
    end
  end
end

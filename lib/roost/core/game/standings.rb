# frozen_string_literal: true

module Roost
  module Core
    module Game
      # The order of seats by points (rules.md): equal points share a rank and the next
      # rank skips, within a rank by name. A row carries the gap to the rank before it
      # and by how many ranks the seat moved (positive is up; nil when it is new).
      module Standings
        Row = Struct.new(:seat_id, :name, :points, :rank, :gap, :moved, keyword_init: true)

        # @param names [Hash{Integer=>String}] seat id to name: all who take part
        # @param points [Hash{Integer=>Integer}] seat id to points; missing is 0
        # @param before [Hash{Integer=>Integer}, nil] points before the last question
        # @return [Array<Row>]
        def self.rows(names, points, before = nil)
          earlier = before ? ranks(names, before) : {}
          totals = names.keys.to_h { |seat| [seat, points.fetch(seat, 0)] }
          present = ranks(names, points)
          ordered = names.keys.sort_by { |seat| [-totals[seat], names[seat].downcase, seat] }
          steps = totals.values.uniq.sort.reverse
          ordered.map do |seat|
            step = steps.index(totals[seat])
            Row.new(seat_id: seat, name: names[seat], points: totals[seat], rank: present[seat],
                    gap: step.zero? ? 0 : steps[step - 1] - totals[seat],
                    moved: earlier[seat] && (earlier[seat] - present[seat])).freeze
          end
        end

        # The rank of one among all: one more than have more points, so that equal points share a rank.
        # @param points [Array<Integer>] of all
        # @param own [Integer] one of them
        # @param steps [Array<Step>, nil]
        # @return [Integer] from 1
        def self.rank(points, own, steps: nil)
          ahead = points.count { |each| each > own }
          Step.note(steps, :rank, ahead + 1, ahead: ahead, of: points.length, points: own, alike: points.count(own) - 1)
        end

        # @return [Hash{Integer=>Integer}] seat id to rank from 1
        def self.ranks(names, points)
          totals = names.keys.to_h { |seat| [seat, points.fetch(seat, 0)] }
          by_points = totals.values.sort.reverse
          totals.transform_values { |total| by_points.index(total) + 1 } # as .rank has it, for all at once
        end
        private_class_method :ranks
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Game
      # The order of seats or teams by points (rules.md): equal points share a rank and the next
      # rank skips, within a rank by name. A row carries the gap to the rank before it
      # and by how many ranks it moved (positive is up; nil when it is new).
      module Standings
        # seat_id:: of a seat, or of a team where teams stand in an order
        Row = Struct.new(:seat_id, :name, :points, :rank, :gap, :moved, keyword_init: true)

        # @param names [Hash{Integer=>String}] id to name: all who take part
        # @param points [Hash{Integer=>Integer}] id to points; missing is 0
        # @param before [Hash{Integer=>Integer}, nil] points before the last question
        # @return [Array<Row>]
        def self.rows(names, points, before = nil)
          earlier = before ? ranks(names, before) : {}
          present = ranks(names, points)
          above = above(names, points)
          ordered = names.keys.sort_by { |id| [present[id], names[id].downcase, id] }
          ordered.map do |id|
            own = points.fetch(id, 0)
            Row.new(seat_id: id, name: names[id], points: own, rank: present[id], gap: above.fetch(own) - own,
                    moved: earlier[id] && (earlier[id] - present[id])).freeze
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

        # As .rank has it, for all at once.
        # @return [Hash{Integer=>Integer}] id to rank from 1
        def self.ranks(names, points)
          first = {}
          names.keys.map { |id| points.fetch(id, 0) }.sort.reverse.each_with_index { |each, at| first[each] ||= at + 1 }
          names.to_h { |id, _| [id, first.fetch(points.fetch(id, 0))] }
        end

        class << self
          private

          # @return [Hash{Integer=>Integer}] points to those of the rank before; the best to themselves
          def above(names, points)
            distinct = names.keys.map { |id| points.fetch(id, 0) }.uniq.sort.reverse
            distinct.zip([distinct.first, *distinct]).to_h
          end
        end
      end
    end
  end
end

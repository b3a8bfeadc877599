# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Groups of a class from what each has and has not (rules.md, groups for tomorrow): those who lack the same together, or
      # each group with somebody who has it. Whoever too little was seen of is dealt last, evenly.
      class Grouping
        WAYS = { "alike" => "those who lack the same sit together", "mixed" => "each group has somebody who has it" }.freeze
        SIZES = (2..8)
        MOST = 300 # students
        ROUNDS = 20
        # How often changing places is gone through, and how often in all it is tried.
        PASSES = 6
        TRIES = 10_000

        # What is known of one student. shares:: Hash of name to Rational, of what was seen; share:: of all of it, or nil
        # has:: whether they have it; known:: whether enough was seen
        Seen = Struct.new(:id, :shares, :share, :has, :known, keyword_init: true)

        # @param students [Array<Seen>]
        # @param way [String] one of WAYS
        # @param size [Integer] in SIZES: as many as can be in a group, none one more or less than another by more than one
        # @param seed [Integer] the same seed, the same groups
        # @return [Array<Array<Integer>>] ids
        def self.of(students, way:, size:, seed:) = new(students, size, seed).public_send(way)

        def initialize(students, size, seed)
          @random = Random.new(seed)
          @known, @unknown = students.first(MOST).partition(&:known)
          @tries = TRIES
          @many = [(students.length / size.to_f).round(half: :down), 1].max
        end

        # k-medoids (L. Kaufman and P. Rousseeuw, 1987) with groups of like size: who is nearest to one chooses first, then two
        # change places as long as that brings those in a group nearer to one another.
        def alike
          return dealt(Array.new(@many) { [] }) if @known.empty?

          medoids = spread_out
          groups = nil
          ROUNDS.times do
            groups = around(medoids)
            following = groups.each_with_index.map { |group, at| group.any? ? middle(group) : medoids[at] }
            break if following == medoids

            medoids = following
          end
          dealt(swapped(groups) { |group| within(group) })
        end

        # By share from one group to the next and back, so that each gets one of the best; then two change places as long as that
        # brings the means of groups nearer to one another, and no group loses the only one who has it.
        def mixed
          ranked = @known.shuffle(random: @random).sort_by { |student| -student.share }
          groups = Array.new(@many) { [] }
          ranked.each_slice(@many).with_index do |row, turn|
            order = turn.even? ? (0...@many).to_a : (0...@many).to_a.reverse
            row.zip(order) { |student, at| groups[at] << student }
          end
          mean = ranked.empty? ? 0 : ranked.sum { |student| student.share.to_f } / ranked.length
          dealt(swapped(groups, keep: groups.count { |group| group.any?(&:has) }) { |group| away_from(group, mean) })
        end

        private

        # How unlike two are: the mean difference of their shares in what was seen of both.
        def distance(one, other)
          @distances ||= {}
          @distances[one.id < other.id ? [one.id, other.id] : [other.id, one.id]] ||= begin
            both = one.shares.keys & other.shares.keys
            both.empty? ? 0.5 : both.sum { |name| (one.shares[name] - other.shares[name]).abs.to_f } / both.length
          end
        end

        # The first by chance, each after it the one farthest from those there are.
        def spread_out
          medoids = [@known.sample(random: @random)]
          while medoids.length < [@many, @known.length].min
            medoids << (@known - medoids).max_by { |student| [medoids.map { |each| distance(student, each) }.min, -student.id] }
          end
          medoids
        end

        def around(medoids)
          room = sizes(@known.length, medoids.length)
          groups = medoids.map { |each| [each] }
          pairs = (@known - medoids).product((0...medoids.length).to_a)
          taken = {}
          pairs.sort_by { |student, at| [distance(student, medoids[at]), student.id, at] }.each do |student, at|
            next if taken[student.id] || groups[at].length >= room[at]

            taken[student.id] = groups[at] << student
          end
          groups
        end

        # @return [Array<Integer>] of so many in so many groups, none more than one larger than another
        def sizes(students, groups)
          Array.new(groups) { |at| (students / groups) + (at < students % groups ? 1 : 0) }
        end

        def middle(group) = group.min_by { |student| [group.sum { |other| distance(student, other) }, student.id] }

        def within(group) = group.combination(2).sum { |one, other| distance(one, other) }

        def away_from(group, mean)
          return 0.0 if group.empty?

          ((group.sum { |student| student.share.to_f } / group.length) - mean)**2
        end

        # @param keep [Integer, nil] how many groups must go on having somebody who has it
        # @yieldparam group [Array<Seen>]
        # @yieldreturn [Float] what is to be small, of each group
        def swapped(groups, keep: nil, &cost)
          groups = groups.map(&:dup)
          PASSES.times do
            pairs = groups.each_index.to_a.combination(2)
            break unless pairs.map { |pair| better(groups, *pair, keep, cost) }.any?
          end
          groups
        end

        # @return [Boolean] whether any two changed places
        def better(groups, one, other, keep, cost)
          changed = false
          groups[one].each_index do |left|
            groups[other].each_index do |right|
              return changed if (@tries -= 1).negative?

              before = cost.call(groups[one]) + cost.call(groups[other])
              change(groups, one, left, other, right)
              better = cost.call(groups[one]) + cost.call(groups[other]) < before - 1e-9
              better &&= keep.nil? || groups.count { |group| group.any?(&:has) } >= keep
              better ? changed = true : change(groups, one, left, other, right)
            end
          end
          changed
        end

        def change(groups, one, left, other, right)
          groups[one][left], groups[other][right] = groups[other][right], groups[one][left]
        end

        # Those too little is known of, each to the smallest group.
        # @return [Array<Array<Integer>>]
        def dealt(groups)
          groups = groups.map { |group| group.map(&:id) }
          groups << [] while groups.length < @many
          @unknown.map(&:id).shuffle(random: @random).each do |id|
            groups.min_by.with_index { |group, at| [group.length, at] } << id
          end
          groups.reject(&:empty?)
        end
      end
    end
  end
end

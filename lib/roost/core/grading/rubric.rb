# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # How writing, a sketch or cards are marked by hand: criteria, each with levels that earn points. It is typed and kept as
      # text, a line each criterion: "Content: missing 0, in part 1, complete 2".
      class Rubric
        LIMIT = 2_000 # characters
        CRITERIA = 8
        LEVELS = (2..6)
        POINTS = (0r..100r)
        NAME_LIMIT = 60
        LINE = /\A(?<name>[^:]+):(?<levels>.+)\z/
        # What a level ends in; before it stands a name and a space.
        POINTS_AT_END = /(?<=[\s(])(?<points>\d{1,3}(?:\.\d{1,3})?)\)?\z/
        UNREADABLE = "“%s” is no criterion. Write a name, then its levels with points, like: " \
                     "Content: missing 0, in part 1, complete 2."
        TOO_MANY = "A rubric has at most #{CRITERIA} criteria.".freeze
        LEVELS_REFUSED = "“%s” needs 2 to 6 levels."
        NO_POINTS = "At least one level has to earn a point."
        HALVES = "Points of a level are from 0 to 100, in halves."

        Criterion = Struct.new(:name, :levels, keyword_init: true) do
          # The most that it can earn.
          def most = levels.map(&:points).max
        end
        # points:: Rational
        Level = Struct.new(:name, :points, keyword_init: true)

        # @param text [Object] as typed
        # @return [Reading] of Rubric, or of nil where nothing was typed
        def self.read(text)
          Text.read(text, limit: LIMIT, what: "The rubric").and_then do |typed|
            lines = typed.lines.map(&:strip).reject(&:empty?)
            next Reading.ok(nil) if lines.empty?
            next Reading.refused(TOO_MANY) if lines.length > CRITERIA

            read_lines(lines).and_then do |criteria|
              criteria.sum(&:most).zero? ? Reading.refused(NO_POINTS) : Reading.ok(new(criteria))
            end
          end
        end

        def self.read_lines(lines)
          lines.reduce(Reading.ok([])) do |so_far, line|
            so_far.and_then { |all| read_line(line).map { |criterion| [*all, criterion] } }
          end
        end

        def self.read_line(line)
          name, typed = line.match(LINE)&.captures&.map(&:strip)
          levels = typed.to_s.split(/[,;]/).map { |level| read_level(level.strip) }
          unread = name.nil? || name.length > NAME_LIMIT || levels.any?(&:nil?)
          return Reading.refused(format(UNREADABLE, line[0, 60])) if unread
          return Reading.refused(format(LEVELS_REFUSED, name)) unless LEVELS.cover?(levels.length)

          with_levels(name, levels)
        end

        # @return [Level, nil]
        def self.read_level(text)
          found = text.match(POINTS_AT_END)
          name = found && found.pre_match.chomp("(").strip
          Level.new(name: name[0, NAME_LIMIT], points: Rational(found[:points])).freeze if name&.match?(/[^\d\s.]/)
        end

        def self.with_levels(name, levels)
          fits = levels.all? { |level| POINTS.cover?(level.points) && (level.points * 2).denominator == 1 }
          fits ? Reading.ok(Criterion.new(name: name, levels: levels.freeze).freeze) : Reading.refused(HALVES)
        end
        private_class_method :read_lines, :read_line, :read_level, :with_levels

        # @return [Array<Criterion>]
        attr_reader :criteria

        def initialize(criteria)
          @criteria = criteria.freeze
          freeze
        end

        # The most that can be earned.
        # @return [Rational]
        def most = criteria.sum(&:most)

        # Whether these are levels of it, one a criterion.
        # @param levels [Array<Integer>] places, from 0
        def fits?(levels)
          levels.length == criteria.length &&
            levels.zip(criteria).all? { |level, criterion| level.is_a?(Integer) && (0...criterion.levels.length).cover?(level) }
        end

        # @param levels [Array<Integer>] that fit
        # @return [Rational] points
        def points(levels) = criteria.zip(levels).sum { |criterion, level| criterion.levels[level].points }

        # @param levels [Array<Integer>] that fit
        # @return [Rational] 0 to 1
        def mark(levels) = points(levels) / most
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # How a school reads a share as a grade (rules.md, grades): by a top grade and a step, or by a table of names, each from a
      # percent on.
      class Scale
        LIMIT = 1_000 # characters of a table
        WHAT = "The table of grades"
        MOST = 20
        NAME_LIMIT = 12
        LINE = /\A(?<percent>\d{1,3}(?:[.,]\d+)?)\s*%?\s*[:=]?\s+(?<name>\S.*)\z/
        UNREADABLE = "“%s” is not a line of the table. Write a percent and a grade, like 90 A."
        TOO_MANY = "A table of grades has at most #{MOST} lines.".freeze
        TWICE = "Two grades begin at the same percent. Give each its own."

        # @param text [Object] as typed, a line each grade
        # @return [Reading] of Array of [Rational share, String name], the best first; empty where nothing was typed
        def self.read_table(text)
          Text.read(text, limit: LIMIT, what: WHAT).and_then do |typed|
            lines = typed.lines.map(&:strip).reject(&:empty?)
            next Reading.refused(TOO_MANY) if lines.length > MOST

            read_lines(lines).and_then do |table|
              next Reading.refused(TWICE) unless table.map(&:first).uniq.length == table.length

              Reading.ok(table.sort_by { |share, _| -share })
            end
          end
        end

        def self.read_lines(lines)
          lines.reduce(Reading.ok([])) do |so_far, line|
            so_far.and_then do |table|
              found = line.match(LINE)
              percent = found && Rational(found[:percent].tr(",", "."))
              fits = found && percent <= 100 && found[:name].length <= NAME_LIMIT
              fits ? Reading.ok([*table, [percent / 100, found[:name]]]) : Reading.refused(format(UNREADABLE, line[0, 40]))
            end
          end
        end
        private_class_method :read_lines

        # @param top [Numeric]
        # @param step [Numeric]
        # @param table [Array<Array(Rational, String)>] the best first; empty where grades are numbers
        def initialize(top:, step:, table: [])
          @top = top.to_r
          @step = step.to_r
          @table = table
        end

        # @param share [Rational]
        # @param steps [Array<Step>, nil]
        # @return [Rational, String] top × share, rounded to the step, halves up; or the name from the table, "" below all
        def grade(share, steps: nil)
          return by_table(share, steps) if @table.any?

          raw = Step.note(steps, :on_scale, @top * share, share: share, top: @top)
          Step.note(steps, :to_step, (raw / @step).round(half: :up) * @step, raw: raw, step: @step)
        end

        private

        def by_table(share, steps)
          from, name = @table.find { |least, _| share >= least }
          Step.note(steps, :by_table, name.to_s, share: share, from: from)
        end
      end
    end
  end
end

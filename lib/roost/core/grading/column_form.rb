# frozen_string_literal: true

require "date"

module Roost
  module Core
    module Grading
      # Reads what a teacher says about one column of her gradebook, and what she types for each student in a column of her own.
      module ColumnForm
        TITLE_LIMIT = 60
        POSSIBLE = (1/2r..1000r)
        WEIGHTS = (0r..100r)
        NO_TITLE = "Give the column a name."
        NO_DAY = "That is no date. Choose one from the calendar."
        NO_POSSIBLE = "Points possible is a number from 0.5 to 1000."
        NO_WEIGHT = "A weight is a number from 0 to 100."
        POINTS = "%s: points are a number from 0 to %s, or empty."
        EXCUSED = "excused"

        # @param form [Hash] "title", "on_date" and "possible" of an own column; "category", "weight", "absent_zero"
        # @param own [Boolean]
        # @param categories [Array<Integer>] ids of those there are
        # @return [Reading] of Hash of columns of grade_columns
        def self.read(form, own:, categories: [])
          category = form["category"].to_s[/\A\d{1,18}\z/]&.to_i
          about = { absent_zero: form["absent_zero"] == "1", category_id: (category if categories.include?(category)) }
          parts = [number(form, "weight", WEIGHTS, NO_WEIGHT, otherwise: 1r)]
          parts += [title(form), day(form), number(form, "possible", POSSIBLE, NO_POSSIBLE)] if own
          parts.reduce(Reading.ok(about)) do |so_far, part|
            so_far.and_then { |known| part.map { |more| known.merge(more) } }
          end
        end

        # @param typed [Hash{Integer=>String}] student to points, EXCUSED, or "" of nothing
        # @param students [Array<Student>]
        # @param possible [Rational, nil] of an own column; nil of a session's, where one is only excused
        # @return [Reading] of Hash of student id to Rational, :excused or nil
        def self.entries(typed, students, possible)
          students.reduce(Reading.ok({})) do |so_far, student|
            next so_far unless typed.key?(student.id)

            so_far.and_then do |known|
              entry(typed[student.id], student, possible).map do |value|
                known.merge(student.id => value)
              end
            end
          end
        end

        def self.entry(text, student, possible)
          return Reading.ok(:excused) if text.to_s.strip.casecmp?(EXCUSED)
          return Reading.ok(nil) unless possible

          points = NumberText.read(text)
          return points if points.ok? && points.value.nil?

          fits = points.ok? && (0..possible).cover?(points.value)
          return Reading.ok(points.value.round(2)) if fits

          Reading.refused(format(POINTS, student.full_name, NumberText.show(possible)))
        end

        def self.title(form)
          Text.read(form["title"], limit: TITLE_LIMIT, what: "The name of the column", lines: false).and_then do |title|
            title.empty? ? Reading.refused(NO_TITLE) : Reading.ok({ title: title })
          end
        end

        def self.day(form)
          Reading.ok({ on_date: Date.strptime(form["on_date"].to_s[0, 10], "%Y-%m-%d") }).then do |read|
            read.value[:on_date].year.between?(2000, 2200) ? read : Reading.refused(NO_DAY)
          end
        rescue Date::Error
          Reading.refused(NO_DAY)
        end

        def self.number(form, name, range, refusal, otherwise: nil)
          typed = NumberText.read(form[name])
          value = typed.ok? ? typed.value || otherwise : nil
          value && range.cover?(value) ? Reading.ok({ name.to_sym => value.round(2) }) : Reading.refused(refusal)
        end
        private_class_method :entry, :title, :day, :number
      end
    end
  end
end

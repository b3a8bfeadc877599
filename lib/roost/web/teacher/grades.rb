# frozen_string_literal: true

module Roost
  module Web
    # The gradebook of a class: students by what they did, in one of several readings.
    class Grades < TeacherApp
      READINGS = { "percent" => "Percent", "correct" => "Correct", "points" => "Points", "grade" => "Grade" }.freeze

      get("/:id/grades") { page("classes/grades", title: "Grades", book: book, klass: klass) }

      get "/:id/grades.csv" do
        content_type "text/csv; charset=utf-8"
        attachment "#{file_name("Grades #{klass.name}")}.csv"
        Exchange::GradeSheet.new(book, ->(entry) { in_reading(entry) }, date: ->(time) { date(time) }).to_csv
      end

      helpers do
        def klass = @klass ||= Store::Classes.new.find(account_id, whole(params["id"])) || not_found

        def book = @book ||= Operations::GradeClass.new.call(account_id, klass.id, drop: drop)

        def drop = Operations::GradeClass::DROPS.cover?(number("drop") || 0) ? number("drop") || 0 : 0

        def reading = READINGS.key?(text("as")) ? text("as") : "percent"

        def scale = @scale ||= Store::School.new.settings

        # What stands in a cell, as it is read; "" where there is nothing.
        # @param entry [Core::Analysis::Gradebook::Entry, Core::Analysis::Gradebook::Total, nil]
        # @return [String]
        def in_reading(entry)
          return "" if entry.nil? || entry.share.nil?

          case reading
          when "correct" then "#{entry.right}/#{entry.marked}"
          when "points" then entry.points.to_s
          when "grade" then Why.number(graded(entry.share))
          else percent(entry.share)
          end
        end

        # @param steps [Array<Core::Step>, nil]
        # @return [Rational]
        def graded(share, steps: nil)
          Core::Analysis::Gradebook.grade(share, top: scale.top_grade, step: scale.grade_step, steps: steps)
        end

        def why(student)
          steps = []
          total = book.total(student.id, steps: steps)
          graded(total.share, steps: steps) if total.share && reading == "grade"
          steps
        end

        def chosen = URI.encode_www_form({ "as" => reading, "drop" => drop })
      end
    end
  end
end

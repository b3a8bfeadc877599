# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # How far everybody is with an assignment: those of the class list, whether they have opened it or not, and whoever
      # else came.
      class Progress
        # stage:: :not_opened, :opened (but not begun), :at_work, :done or :over (begun, and no time is left)
        # late:: whether something came after the time was over; share:: mean mark so far, or nil
        # attempt:: the latest, from 1; seconds:: spent on it, all attempts; handed_in_at:: epoch seconds
        Row = Struct.new(:seat_id, :student_id, :name, :stage, :answered, :asked, :late, :share, :attempt, :seconds,
                         :handed_in_at, keyword_init: true)

        # @param record [Session::Record]
        # @param sittings [Hash{Integer=>Array<Session::Sitting>}] by seat, in order of attempts
        # @param spent [Hash{Integer=>Float}] seconds by seat
        # @param asked [#call] id of a student, or nil, to how many questions they are asked
        def initialize(record, sittings:, spent:, asked:, now:)
          @record = record
          @results = Results.new(record)
          @sittings = sittings
          @spent = spent
          @asked = asked
          @now = now
        end

        # @return [Array<Row>] in the order of the class list, and then by name who isn't on it
        def rows
          @rows ||= @record.in_order(@record.seats.map { |seat| of_seat(seat) } +
                                     @record.missing.map { |student| missing(student) }).freeze
        end

        # @return [Hash{Symbol=>Integer}] how many there are of each stage
        def counts = rows.group_by(&:stage).transform_values(&:length)

        # @return [Array<Row>] who have not finished
        def open = rows.reject { |row| row.stage == :done }

        private

        def missing(student)
          Row.new(student_id: student.id, name: student.full_name, stage: :not_opened, answered: 0, late: false, seconds: 0.0,
                  asked: @asked.call(student.id)).freeze
        end

        def of_seat(seat)
          sitting = @sittings.fetch(seat.id, []).last
          line = @results.line_of(seat.id)
          given = line.outcomes.values.select(&:answer)
          Row.new(seat_id: seat.id, student_id: seat.student_id, name: name(seat), stage: stage(sitting, seat),
                  answered: given.length,
                  asked: asked(sitting, seat), late: given.any? { |outcome| outcome.answer.late }, share: line.share,
                  attempt: sitting&.attempt, seconds: @spent.fetch(seat.id, 0.0), handed_in_at: sitting&.handed_in_at).freeze
        end

        def name(seat) = (@students ||= @record.roll.to_h { |each| [each.id, each] })[seat.student_id]&.full_name || seat.name

        def stage(sitting, seat)
          return seat.visited ? :opened : :not_opened unless sitting
          return :done if sitting.handed_in_at

          sitting.over?(@now) ? :over : :at_work
        end

        def asked(sitting, seat)
          sitting ? sitting.slides.count { |id| @record.lesson.slide(id)&.prompt } : @asked.call(seat.student_id)
        end
      end
    end
  end
end

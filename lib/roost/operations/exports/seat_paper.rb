# frozen_string_literal: true

module Roost
  module Operations
    # One student's results on paper, to be handed to them or to a parent.
    class SeatPaper < SessionPaper
      # row:: Store::Sessions::Row
      Subject = Struct.new(:row, :seat_id, keyword_init: true)

      # @param id [Integer] of a seat
      # @return [Subject, nil]
      def subject(account_id, id)
        row = Store::Sessions.new.of_seat(id)
        Subject.new(row: row, seat_id: id).freeze if row && super(account_id, row.id)
      end

      # @param subject [Subject]
      # @return [String, nil]
      def file(subject, &progress)
        @seat_id = subject.seat_id
        super(subject.row, &progress)
      end

      private

      def document(row, results, pictures)
        line = results.line_of(@seat_id)
        { title: "#{line.seat.name}: #{row.title}", about: [row.class_name, day(row)].reject(&:empty?).join(" · "), size: SIZE,
          overview: [], grid: nil, students: [student(results, line)], sheets: sheets(results, [line], pictures) }
      end
    end
  end
end

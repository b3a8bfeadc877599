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
        made(subject.row, progress) do |results, pictures|
          line = results.line_of(subject.seat_id)
          { title: "#{line.seat.name}: #{subject.row.title}", overview: [], grid: nil, students: [student(results, line)],
            sheets: sheets(results, [line], pictures) }
        end
      end
    end
  end
end

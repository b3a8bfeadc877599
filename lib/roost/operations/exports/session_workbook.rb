# frozen_string_literal: true

require "date"

module Roost
  module Operations
    # A session as a workbook (Exchange::ResultsWorkbook).
    class SessionWorkbook
      TYPE = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"

      # @return [Store::Sessions::Row, nil]
      def subject(account_id, id) = Store::Sessions.new.of_teacher(account_id, id)

      # @param row [Store::Sessions::Row]
      # @return [String]
      def file(row, &progress)
        results = Core::Analysis::Results.new(Store::Records.new.of(row))
        seats = results.record.seats.map(&:id)
        day = SchoolClock.here.local(row.created_at)
        Exchange::ResultsWorkbook.new(results, class_name: row.class_name, day: Date.new(day.year, day.month, day.day),
                                               comments: Store::Comments.new.of(seats)).to_xlsx(&progress)
      end
    end
  end
end

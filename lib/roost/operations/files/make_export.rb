# frozen_string_literal: true

module Roost
  module Operations
    # Makes a file in the background, where that takes longer than a page may.
    class MakeExport
      # What can be made, by its media type.
      KINDS = { "session_xlsx" => "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet" }.freeze

      # Leaves it to the background.
      # @param kind [String] one of KINDS
      # @return [Boolean, nil] nil when she has no such thing
      def start(account_id, kind, subject_id)
        return nil unless subject(account_id, subject_id)

        exports.transaction do
          id = exports.begin_one(account_id, kind, subject_id)
          Store::Background.new.later("make_export", id) if id
        end
        true
      end

      # @param id [Integer] of an export
      def call(id)
        export = exports.find(id)
        return unless export&.making?

        row = subject(export.account_id, export.subject_id) or return give_up(id)

        content = session_xlsx(row) { |done, parts| exports.update(id, done: done, parts: parts) }
        File.open(exports.path(id), "wb", 0o600) { |file| file.write(content) }
        exports.update(id, state: "ready")
      end

      def give_up(id) = exports.update(id, state: "failed")

      private

      def exports = @exports ||= Store::Exports.new

      # @return [Store::Sessions::Row, nil]
      def subject(account_id, id) = Store::Sessions.new.of_teacher(account_id, id)

      def session_xlsx(row, &progress)
        results = Core::Analysis::Results.new(Store::Records.new.of(row))
        seats = results.record.seats.map(&:id)
        day = SchoolClock.here.local(row.created_at)
        Exchange::ResultsWorkbook.new(results, class_name: row.class_name, day: Date.new(day.year, day.month, day.day),
                                               comments: Store::Comments.new.of(seats)).to_xlsx(&progress)
      end
    end
  end
end

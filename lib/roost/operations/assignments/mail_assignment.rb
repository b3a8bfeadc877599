# frozen_string_literal: true

module Roost
  module Operations
    # Puts a mail about an assignment into the outbox, to the teacher who gave it: she sends it on, since students have no
    # addresses here.
    class MailAssignment
      # @param link [String] to the assignment
      # @param only_open [Boolean] whether it is a reminder that names who has not finished
      # @return [Boolean, nil] nil when she has no such assignment
      def call(account_id, session_id, link, only_open:)
        row = Store::Sessions.new.of_teacher(account_id, session_id)
        return nil unless row&.self_paced

        time = SchoolClock.here
        closes = time.say(Store::Assignments.new.find(row.id).closes_at)
        SendMail.new.call(recipient: Store::Accounts.new.email(account_id), subject: subject(row, only_open),
                          body: [text(row, link, closes), (names(row) if only_open)].compact.join("\n\n"))
        true
      end

      private

      def subject(row, only_open) = only_open ? "Still open: #{row.title}" : row.title

      def text(row, link, closes) = "#{row.title}\n\nDo this by #{closes}:\n#{link}"

      def names(row)
        open = FollowAssignment.new.call(row).open.map(&:name)
        open.empty? ? "Everybody has finished." : "Not finished yet: #{open.join(", ")}."
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Operations
    # Sends a mail: keeps it in the outbox, and where a mail server is set has it delivered from
    # there in the background, so that nobody waits for it.
    class SendMail
      # @param pretend [Boolean] does the same work, and takes it back: where it is not to be seen from
      #   how long it takes whether a mail was sent
      def call(recipient:, subject:, body:, pretend: false)
        outbox = Store::Outbox.new
        outbox.transaction do
          id = outbox.add(recipient: recipient, subject: subject, body: body)
          Store::Background.new.later("deliver_mail", id) if Roost.settings.smtp_url
          raise Sequel::Rollback if pretend
        end
      end
    end
  end
end

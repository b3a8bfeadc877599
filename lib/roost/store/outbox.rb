# frozen_string_literal: true

module Roost
  module Store
    # The mail outbox that ships with the program: mails are kept here to be read,
    # rather than sent, when no mail server is set up.
    class Outbox < Repository
      KEPT = 200

      def add(recipient:, subject:, body:)
        database[:outbox_mails].insert(recipient: recipient, subject: subject, body: body)
      end

      # @return [Hash, nil]
      def find(id) = database[:outbox_mails].where(id: id).first

      # @return [Array<Hash>] latest first: :recipient, :subject, :body, :sent_at
      def latest = database[:outbox_mails].reverse(:sent_at, :id).limit(KEPT).all
    end
  end
end

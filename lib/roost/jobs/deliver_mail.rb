# frozen_string_literal: true

require "mail"
require "que"

module Roost
  module Jobs
    # Delivers a mail of the outbox by SMTP. Tried again, with growing pauses, for as long as a link in
    # it is good.
    class DeliverMail < Que::Job
      TRIES = 12

      # @param id [Integer] of the mail
      def run(id)
        mail = Store::Outbox.new.find(id)
        DeliverMail.message(mail).deliver! if mail
        finish
      end

      def handle_error(error) = error_count < TRIES ? super : expire

      # @param mail [Hash] see Store::Outbox
      # @return [Mail::Message]
      def self.message(mail)
        server = URI(Roost.settings.smtp_url)
        secret = ->(part) { part && URI.decode_www_form_component(part) }
        Mail.new(from: Roost.settings.mail_from, to: mail[:recipient], subject: mail[:subject], body: mail[:body],
                 charset: "UTF-8").tap do |message|
          message.delivery_method(:smtp, address: server.host, port: server.port || 25, user_name: secret.call(server.user),
                                         password: secret.call(server.password), authentication: server.user && "plain",
                                         tls: server.scheme == "smtps", enable_starttls_auto: true,
                                         open_timeout: 10, read_timeout: 20)
        end
      end
    end
  end
end

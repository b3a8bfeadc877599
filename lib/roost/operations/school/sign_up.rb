# frozen_string_literal: true

module Roost
  module Operations
    # Makes a teacher's account in two steps: what was typed waits until the link in a mail is opened.
    # So signing up says the same, and takes as long, whether or not the address has an account.
    # Who may: whoever is invited (AcceptInvitation), and addresses of domains that the keeper named.
    class SignUp
      SUBJECT = "Amber Roost: your account"
      INVITED_ONLY = "Accounts here are made by invitation. Ask a colleague who keeps the school's settings for a link.\n"

      # @param invitation [String, nil] key of one (Store::School)
      # @return [void]
      def begin(email:, name:, invitation: nil)
        key = Store::SignIns.new.keep_sign_up(email: email, name: name, invitation: invitation)
        known = Store::Accounts.new.id_of(email)
        welcome = Store::School.new.may_join?(email, invitation) ? link(key) : INVITED_ONLY
        body = known ? already : welcome
        SendMail.new.call(recipient: email, subject: SUBJECT, body: body)
      end

      # Whether a link is still good.
      def waiting?(key) = !Store::SignIns.new.sign_up(key).nil?

      # @param password_hash [String] of the password that was chosen after the link was opened
      # @return [String, nil] the email of the account that was made; nil when the link is not good any more
      def finish(key, password_hash)
        sign_ins = Store::SignIns.new
        sign_ins.transaction do
          waiting = sign_ins.sign_up(key)
          next nil unless waiting

          sign_ins.forget_sign_ups(waiting[:email])
          next nil if Store::Accounts.new.id_of(waiting[:email])

          next nil unless Store::School.new.admit?(*waiting.values_at(:email, :invitation))

          Store::Accounts.new.create(**waiting.except(:invitation), password_hash: password_hash)
          waiting[:email]
        end
      end

      private

      def link(key) = "Open this link within a day to make your account:\n\n#{Roost.settings.base_url}/welcome?key=#{key}\n"

      def already
        "Somebody, perhaps you, wanted to make an account with this address. It has one already:\n\n" \
          "#{Roost.settings.base_url}/sign-in\n\nA new password, if you need one:\n\n#{Roost.settings.base_url}/forgotten\n"
      end
    end
  end
end

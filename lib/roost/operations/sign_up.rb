# frozen_string_literal: true

module Roost
  module Operations
    # Makes a teacher's account in two steps: what was typed waits until the link in a mail is opened.
    # So signing up says the same, and takes as long, whether or not the address has an account.
    class SignUp
      SUBJECT = "Amber Roost: your account"

      # @return [void]
      def begin(email:, name:, password_hash:)
        key = Store::SignIns.new.keep_sign_up(email: email, name: name, password_hash: password_hash)
        known = Store::Accounts.new.id_of(email)
        SendMail.new.call(recipient: email, subject: SUBJECT, body: known ? already : link(key))
      end

      # @return [String, nil] the email of the account that was made, or was there; nil when the link
      #   is not good any more
      def finish(key)
        sign_ins = Store::SignIns.new
        sign_ins.transaction do
          waiting = sign_ins.sign_up(key)
          next nil unless waiting

          sign_ins.forget_sign_ups(waiting[:email])
          next nil if Store::Accounts.new.id_of(waiting[:email])

          Store::Accounts.new.create(**waiting)
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

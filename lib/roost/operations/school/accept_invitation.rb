# frozen_string_literal: true

module Roost
  module Operations
    # What the link of an invitation leads to: an account, or, where the address has one, a new password for it. A link that
    # was made for one address shows that it is right; one for whoever has it is followed by a mail where mails are sent.
    class AcceptInvitation
      TAKEN = "That address has an account. Sign in with it, or write another."

      CHANGED = "Amber Roost: your password was changed"
      CHANGED_BODY = "Your password was changed by a link from the teacher who keeps the school's settings, and all devices " \
                     "were signed out. If that wasn't you, ask for another link.\n"

      # @return [Hash, nil] :email, nil where it is for whoever has the link, and :name of the account that address has; nil
      #   when the link is not good any more
      def about(key)
        email = Store::School.new.invitation(key)
        email && { email: email.empty? ? nil : email, name: Store::Accounts.new.by_email(email)&.last }
      end

      # Whether the address, which nobody has shown to be right, is first asked by mail.
      def asks?(about) = about[:email].nil? && Roost.settings.mails?

      # @param form [Hash] "name", "email"
      # @return [Core::Reading] of Hash: :name and :email
      def read(about, form)
        return Core::Reading.ok({ email: about[:email], name: about[:name] }) if about[:name]

        Core::NewTeacher.read(about[:email] ? form.merge("email" => about[:email]) : form).and_then do |teacher|
          taken = !asks?(about) && Store::Accounts.new.id_of(teacher[:email])
          taken ? Core::Reading.refused(TAKEN) : Core::Reading.ok(teacher)
        end
      end

      # Uses the invitation.
      # @param teacher [Hash] that was read
      # @return [String, nil] the email of the account; nil when the link is not good any more
      def call(key, teacher, password_hash)
        school = Store::School.new
        school.transaction do
          invited = school.invitation(key)
          next nil unless school.take_invitation?(key)

          known = Store::Accounts.new.id_of(teacher[:email])
          next nil if known && !invited.casecmp?(teacher[:email]) # made meanwhile, and nobody has shown it to be theirs

          keep(known, teacher, password_hash)
          teacher[:email]
        end
      end

      private

      def keep(known, teacher, password_hash)
        return Store::Accounts.new.create(**teacher, password_hash: password_hash) unless known

        change(known, teacher[:email], password_hash)
      end

      # Whose it is hears of it, since the keeper has seen the link.
      def change(account_id, email, password_hash)
        Store::Accounts.new.change_password(account_id, password_hash)
        Store::SignIns.new.finish(account_id)
        SendMail.new.call(recipient: email, subject: CHANGED, body: CHANGED_BODY)
      end
    end
  end
end

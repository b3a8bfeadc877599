# frozen_string_literal: true

module Roost
  module Operations
    # Lets a colleague look at a lesson or edit it, and tells her by mail.
    class ShareLesson
      NOBODY = "Nobody here has that email. Ask your colleague which one she signs in with."
      YOURSELF = "That is you. The lesson is yours already."

      # @param email [String] of the colleague's account
      # @return [Core::Reading, nil] of the colleague's account id; nil when the lesson isn't this teacher's own
      def call(account_id, lesson_id, email, may_edit:)
        entry = Store::Catalogue.new.entry(account_id, lesson_id)
        return nil unless entry&.role == :owner

        other, name = Store::Accounts.new.by_email(email)
        return Core::Reading.refused(NOBODY) unless other
        return Core::Reading.refused(YOURSELF) if other == account_id

        Store::Sharing.new.share(lesson_id, other, may_edit: may_edit)
        SendMail.new.call(recipient: email, subject: "Amber Roost: #{entry.title}", body: mail(entry, name, may_edit))
        Core::Reading.ok(other)
      end

      private

      def mail(entry, name, may_edit)
        address = "#{Roost.settings.base_url}/lessons/#{entry.id}#{"/look" unless may_edit}"
        purpose = may_edit ? "edit together" : "look at and copy"
        "#{name},\n\n#{entry.owner} shares “#{entry.title}” with you, to #{purpose}:\n\n#{address}\n"
      end
    end
  end
end

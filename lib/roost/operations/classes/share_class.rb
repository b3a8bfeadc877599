# frozen_string_literal: true

module Roost
  module Operations
    # Lets a colleague teach a class, too: she sees its students, adds and changes them, and gives it lessons.
    # Names, archiving and deleting stay its owner's.
    class ShareClass
      YOURSELF = "That is you. The class is yours already."

      # @param email [String] of the colleague's account
      # @return [Core::Reading, nil] of the colleague's account id; nil when the class isn't this teacher's own
      def call(account_id, class_id, email)
        row = own(account_id, class_id) or return nil

        other, name = Store::Accounts.new.by_email(email)
        return Core::Reading.refused(ShareLesson::NOBODY) unless other
        return Core::Reading.refused(YOURSELF) if other == account_id

        Store::Classes.new.share(class_id, other)
        Store::Sessions.new.return_to_class(other, class_id)
        SendMail.new.call(recipient: email, subject: "Amber Roost: #{row.name}", body: mail(row, name))
        Core::Reading.ok(other)
      end

      # @param other [Integer] account id of the colleague
      # @return [Core::Reading, nil] as above
      def stop(account_id, class_id, other)
        return nil unless own(account_id, class_id)

        classes = Store::Classes.new
        classes.transaction do
          classes.unshare(class_id, other)
          Store::Sessions.new.leave_class(other, class_id, Store::Students.new.of_class(class_id))
        end
        Core::Reading.ok(other)
      end

      private

      def own(account_id, class_id)
        row = Store::Classes.new.find(account_id, class_id)
        row if row&.mine
      end

      def mail(row, name)
        "#{name},\n\n#{row.owner} teaches “#{row.name}” together with you:\n\n#{Roost.settings.base_url}/classes/#{row.id}\n"
      end
    end
  end
end

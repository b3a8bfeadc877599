# frozen_string_literal: true

module Roost
  module Operations
    # Ends a colleague's share in a teacher's own lesson.
    class UnshareLesson
      # @param other [Integer] account id of the colleague
      # @return [Core::Reading, nil] nil when the lesson isn't this teacher's own
      def call(account_id, lesson_id, other)
        return nil unless Store::Catalogue.new.entry(account_id, lesson_id)&.role == :owner

        Store::Sharing.new.unshare(lesson_id, other)
        Core::Reading.ok(other)
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Operations
    # Puts a lesson among a teacher's favourites; and what its owner alone may do: archive it, open it to
    # all. Each says where to get to, so that a second click changes nothing.
    class MarkLesson
      # @param mark [Symbol] :starred, :archived or :open
      # @param set [Boolean] whether it is to have that mark
      # @return [Core::Reading, nil] nil when she may not, or there is no such lesson
      def call(account_id, lesson_id, mark, set)
        entry = Store::Catalogue.new.entry(account_id, lesson_id)
        return nil unless entry && (mark == :starred || entry.role == :owner)

        sharing = Store::Sharing.new
        case mark
        when :starred then sharing.star(account_id, lesson_id, set)
        when :archived then sharing.archive(lesson_id, set)
        when :open then sharing.open_to_all(lesson_id, set)
        end
        Core::Reading.ok(set)
      end
    end
  end
end

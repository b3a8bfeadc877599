# frozen_string_literal: true

module Roost
  module Operations
    # Makes a teacher a lesson of her own.
    class CreateLesson
      # @param lesson [Core::Lesson]
      # @return [Integer] its id
      def call(account_id, lesson) = Store::Lessons.new.create(account_id, lesson)
    end
  end
end

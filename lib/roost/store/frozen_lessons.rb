# frozen_string_literal: true

module Roost
  module Store
    # Frozen lessons of sessions, as this process has read them: a lesson of hundreds of slides is
    # parsed once, and not with every command. A version is never given twice, so what is here
    # under one is true for ever.
    module FrozenLessons
      @lessons = Core::LruCache.new(50)

      # @yieldreturn [Core::Lesson, nil] as it is read when it isn't here; nil is not kept
      # @return [Core::Lesson, nil]
      def self.of(session_id, version, &block) = @lessons.fetch([session_id, version], &block)
    end
  end
end

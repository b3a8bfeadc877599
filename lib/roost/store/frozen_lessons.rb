# frozen_string_literal: true

module Roost
  module Store
    # Frozen lessons of sessions, as this process has read them: a lesson of hundreds of slides is
    # parsed once, and not with every command. A version is never given twice, so what is here
    # under one is true for ever.
    module FrozenLessons
      MOST = 50

      @lessons = {}
      @lock = Mutex.new

      # @yieldreturn [Core::Lesson, nil] as it is read when it isn't here; nil is not kept
      # @return [Core::Lesson, nil]
      def self.of(session_id, version)
        key = [session_id, version]
        found = @lock.synchronize { @lessons[key] = @lessons.delete(key) if @lessons.key?(key) }
        return found if found

        yield&.tap { |lesson| keep(key, lesson) }
      end

      # The one that was wanted longest ago goes.
      def self.keep(key, lesson)
        @lock.synchronize do
          @lessons.shift if @lessons.length >= MOST
          @lessons[key] = lesson
        end
      end
      private_class_method :keep
    end
  end
end

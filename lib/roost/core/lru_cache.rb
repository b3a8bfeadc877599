# frozen_string_literal: true

module Roost
  module Core
    # What was worked out or read before, so much of it and no more: the one that was wanted longest ago
    # goes (least recently used). May be used from any thread.
    class LruCache
      # @param most [Integer] of them
      def initialize(most)
        @most = most
        @kept = {}
        @lock = Mutex.new
      end

      # @yieldreturn what belongs to the key, where it isn't here; nil is not kept. Threads that come at once
      #   may each be asked.
      def fetch(key)
        @lock.synchronize { return @kept[key] = @kept.delete(key) if @kept.key?(key) }
        yield&.tap { |made| keep(key, made) }
      end

      def delete(key) = @lock.synchronize { @kept.delete(key) }

      # @yieldparam value
      def delete_if = @lock.synchronize { @kept.delete_if { |_, value| yield(value) } }

      def clear = @lock.synchronize { @kept.clear }

      private

      def keep(key, made)
        @lock.synchronize do
          @kept.shift if @kept.length >= @most && !@kept.key?(key)
          @kept[key] = made
        end
      end
    end
  end
end

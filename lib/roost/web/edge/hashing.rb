# frozen_string_literal: true

module Roost
  module Web
    # Hashing a password takes a quarter of a second and 64 MB, on purpose: at most two at a time in a process, and a few that
    # wait. Whoever comes then is told to come again, so that pages of lessons never wait for passwords.
    module Hashing
      AT_ONCE = 2
      MOST_WAITING = 12
      class Busy < StandardError
      end

      @turns = SizedQueue.new(AT_ONCE)
      @waiting = 0
      @lock = Mutex.new

      # @yield when it is this thread's turn
      # @raise [Busy] where too many wait
      def self.turn
        @lock.synchronize { @waiting < MOST_WAITING ? @waiting += 1 : raise(Busy) }
        begin
          @turns << true
        ensure
          @lock.synchronize { @waiting -= 1 }
        end
        begin
          yield
        ensure
          @turns.pop
        end
      end
    end
  end
end

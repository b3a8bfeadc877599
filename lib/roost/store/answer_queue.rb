# frozen_string_literal: true

module Roost
  module Store
    # Saves that threads of this process have at hand at the same time are written together, with one
    # statement: whoever comes while nobody writes writes for all that wait, and the others wait for that.
    # Where the statement is refused each is written alone, so that one that can't be taken costs no
    # other anything.
    class AnswerQueue
      MOST = 100

      Waiting = Struct.new(:given, :done, :saved, :error) do
        # Two saves of the same answer go one after the other.
        def key = given.values_at(:seat_id, :slide_id, :attempt)
      end
      private_constant :Waiting

      # @param answers [#call] gives what saves: Answers
      def initialize(answers = -> { Answers.new })
        @answers = answers
        @waiting = []
        @writing = false
        @lock = Mutex.new
        @turn = ConditionVariable.new
      end

      # @param given [Hash] see Answers#save_all
      # @return [Answers::Saved, nil] nil when nothing was stored
      # @raise [Sequel::Error] as Answers#save does
      def save(**given)
        mine = Waiting.new(given)
        @lock.synchronize { @waiting << mine }
        until mine.done
          batch = @lock.synchronize do
            @turn.wait(@lock) while @writing && !mine.done
            mine.done ? [] : take
          end
          write(batch) if batch.any?
        end
        raise mine.error if mine.error

        mine.saved
      end

      private

      # Under the lock.
      def take
        @writing = true
        batch = @waiting.uniq(&:key).first(MOST)
        @waiting -= batch
        batch
      end

      def write(batch)
        together(batch)
      ensure
        @lock.synchronize do
          batch.each { |each| each.done = true }
          @writing = false
          @turn.broadcast
        end
      end

      def together(batch)
        @answers.call.save_all(batch.map(&:given)).zip(batch) { |saved, waiting| waiting.saved = saved }
      rescue Sequel::Error => e
        return batch.each { |waiting| waiting.error = e } if batch.one? || away?(e)

        batch.each { |waiting| together([waiting]) }
      end

      # No use in trying one by one when there is no database.
      def away?(error) = [Sequel::DatabaseConnectionError, Sequel::DatabaseDisconnectError, Sequel::PoolTimeout].any? { |kind| error.is_a?(kind) }
    end
  end
end

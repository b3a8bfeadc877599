# frozen_string_literal: true

module Roost
  module Store
    # Saves that threads of this process have at hand at the same time are written together, with one
    # statement: each thread leaves its save here and waits; one thread takes all that wait and writes
    # them. Where the statement is refused each is written alone, so that one that can't be taken costs
    # no other anything.
    class AnswerQueue
      MOST = 100

      # told:: what the thread of this save waits at
      Waiting = Struct.new(:given, :told, :saved, :error) do
        # Two saves of the same answer go one after the other.
        def key = given.values_at(:seat_id, :slide_id, :attempt)
      end
      private_constant :Waiting

      # @param answers [#call] gives what saves: Answers
      def initialize(answers = -> { Answers.new })
        @answers = answers
        @waiting = Thread::Queue.new
        @lock = Mutex.new
      end

      # @param given [Hash] see Answers#save_all
      # @return [Answers::Saved, nil] nil when nothing was stored
      # @raise [Sequel::Error] as Answers#save does, or when what writes has died before it was written
      def save(**given)
        mine = Waiting.new(given, Thread::Queue.new, nil, Sequel::Error.new("not written"))
        @waiting << mine
        see_to_writer
        mine.told.pop
        raise mine.error if mine.error

        mine.saved
      end

      private

      # A process that was forked has none of its own yet.
      def see_to_writer
        return if @writer&.alive?

        @lock.synchronize do
          next if @writer&.alive?

          @writer = Thread.new { keep_writing }
          @writer.name = "roost-answers"
        end
      end

      def keep_writing
        batch = []
        again = []
        loop do
          batch, again = taken(again).group_by(&:key).values.map { |same| [same.first, same.drop(1)] }.transpose
          again = again.flatten
          together(batch)
          batch.each { |waiting| waiting.told << true }
        end
      ensure
        # Nobody waits for a writer that has died; what is sent again finds a new one.
        left = Array.new(@waiting.length) { @waiting.pop }
        [*batch, *again, *left].each { |waiting| waiting.told << true }
      end

      # All that wait, at least one, and those that come when the others have been let go first.
      def taken(again)
        batch = again
        batch << @waiting.pop if batch.empty?
        batch << @waiting.pop while batch.length < MOST && more?
        batch
      end

      # The more are written together, the less each costs.
      def more? = !@waiting.empty? || 2.times.any? { Thread.pass || !@waiting.empty? }

      def together(batch)
        @answers.call.save_all(batch.map(&:given)).zip(batch) do |saved, waiting|
          waiting.saved = saved
          waiting.error = nil
        end
      rescue StandardError => e
        return batch.each { |waiting| waiting.error = e } if batch.one? || away?(e)

        batch.each { |waiting| together([waiting]) }
      end

      # No use in trying one by one when there is no database.
      def away?(error)
        [Sequel::DatabaseConnectionError, Sequel::DatabaseDisconnectError, Sequel::PoolTimeout].any? { |kind| error.is_a?(kind) }
      end
    end
  end
end

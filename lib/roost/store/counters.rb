# frozen_string_literal: true

module Roost
  module Store
    # Counts that expire, for rate limits: shared by all web processes.
    class Counters < Repository
      EVERY = 30 # seconds between two times that a process clears away what has expired
      @swept = 0.0
      class << self
        attr_accessor :swept
      end

      # @return [Integer, nil]
      def read(key)
        prepared(:counter) { live.where(key: :$key).select(:value) }.call(key: key).first&.fetch(:value)
      end

      def write(key, value, expires_in:)
        database[:counters].insert_conflict(target: :key, update: { value: value.to_i, expires_at: after(expires_in) })
                           .insert(key: key, value: value.to_i, expires_at: after(expires_in))
      end

      # @return [Integer] the count with this one; starts anew once it has expired
      def increment(key, amount = 1, expires_in:)
        sweep
        add.call(key: key, amount: amount, seconds: expires_in).first[:value]
      end

      def delete(key) = database[:counters].where(key: key).delete

      private

      def live = database[:counters].where { expires_at > Sequel.function(:clock_timestamp) }

      def after(seconds) = Sequel.lit("clock_timestamp() + make_interval(secs => ?)", seconds)

      def add
        prepared(:count_one, :insert, key: :$key, value: :$amount, expires_at: after(:$seconds)) do
          expired = Sequel[:counters][:expires_at] < Sequel.function(:clock_timestamp)
          database[:counters].returning(:value).insert_conflict(
            target: :key,
            update: { value: Sequel.case({ expired => :$amount }, Sequel[:counters][:value] + :$amount),
                      expires_at: Sequel.case({ expired => after(:$seconds) }, Sequel[:counters][:expires_at]) }
          )
        end
      end

      # One that has expired counts as none, so that nobody waits for this.
      def sweep
        now = Process.clock_gettime(Process::CLOCK_MONOTONIC)
        return if now < Counters.swept + EVERY

        Counters.swept = now
        database[:counters].where { expires_at < Sequel.function(:clock_timestamp) }.delete
      end
    end
  end
end

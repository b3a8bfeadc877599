# frozen_string_literal: true

module Roost
  module Store
    # Counts that expire, for rate limits: shared by all web processes.
    class Counters < Repository
      # @return [Integer, nil]
      def read(key) = live.where(key: key).get(:value)

      def write(key, value, expires_in:)
        database[:counters].insert_conflict(target: :key, update: { value: value.to_i, expires_at: after(expires_in) })
                           .insert(key: key, value: value.to_i, expires_at: after(expires_in))
      end

      # @return [Integer] the count with this one; starts anew once it has expired
      def increment(key, amount = 1, expires_in:)
        sweep
        expired = Sequel[:counters][:expires_at] < Sequel.function(:clock_timestamp)
        database[:counters].returning(:value).insert_conflict(
          target: :key,
          update: { value: Sequel.case({ expired => amount }, Sequel[:counters][:value] + amount),
                    expires_at: Sequel.case({ expired => after(expires_in) }, Sequel[:counters][:expires_at]) }
        ).insert(key: key, value: amount, expires_at: after(expires_in)).first[:value]
      end

      def delete(key) = database[:counters].where(key: key).delete

      private

      def live = database[:counters].where { expires_at > Sequel.function(:clock_timestamp) }

      def after(seconds) = Sequel.lit("clock_timestamp() + make_interval(secs => ?)", seconds)

      def sweep = database[:counters].where { expires_at < Sequel.function(:clock_timestamp) }.delete
    end
  end
end

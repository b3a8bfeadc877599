# frozen_string_literal: true

module Roost
  module Operations
    # Which class a teacher means who begins something: the one she taught at this hour of the week, else the one she taught
    # last, else any.
    class LikelyClass
      WEEK = 7 * 86_400
      LOOKED_AT = 8 # weeks
      NEAR = 40 * 60 # seconds that a lesson may begin earlier or later than a week ago

      # @param classes [Array<Store::Classes::Row>] hers, to choose from
      # @param now [Float] epoch seconds
      # @return [Integer, nil] id of one
      def call(account_id, classes, now)
        begun = Store::PastSessions.new.begun(account_id, since: now - (LOOKED_AT * WEEK))
        taught = begun.select { |class_id,| classes.any? { |each| each.id == class_id } }
        time = SchoolClock.here
        this_hour = time.week_time(now)
        at_this_hour = taught.select { |_class_id, at| near?(time.week_time(at), this_hour) }
        (at_this_hour + taught).map(&:first).first || classes.first&.id
      end

      private

      def near?(one, other) = [(one - other) % WEEK, (other - one) % WEEK].min <= NEAR
    end
  end
end

# frozen_string_literal: true

module Roost
  module Operations
    # Times as they are said at the school whose program this is.
    module SchoolClock
      # @return [Exchange::SchoolTime]
      def self.here = Exchange::SchoolTime.new(Store::School.new.settings.time_zone)
    end
  end
end

# frozen_string_literal: true

module Roost
  module Jobs
    # Files that were made lie ready for an hour, and are deleted within ten minutes after it.
    class ForgetExports < Repeated
      PERIOD = 600

      def does = Store::Exports.new.forget_old
    end
  end
end

# frozen_string_literal: true

module Roost
  module Jobs
    # Passes that were drawn lie ready for an hour, and are deleted within ten minutes after it.
    class ForgetPasses < Repeated
      PERIOD = 600

      def does = Store::PassSheets.new.forget_old
    end
  end
end

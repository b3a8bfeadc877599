# frozen_string_literal: true

module Roost
  module Operations
    # Lets a name through that was stopped: whoever types it in this session now comes in.
    class AllowName
      # @return [String, nil] the name; nil when she has no such session, or it was not stopped there
      def call(account_id, session_id, name)
        return nil unless Store::Sessions.new.of_teacher(account_id, session_id)
        return nil if Store::StoppedNames.new.allow(session_id, name).zero?

        Live::Bus.announce(session_id, :people)
        name
      end
    end
  end
end

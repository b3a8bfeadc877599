# frozen_string_literal: true

module Roost
  module Operations
    # How many answers wait to be marked by hand, of each session in which a teacher has begun with that.
    class ToMark
      # @return [Hash{Integer=>Integer}] session id to how many, those with any
      def call(account_id)
        begun = Store::HandMarks.new.sessions(account_id)
        WriteEvidence.new.call(begun)
        Store::Evidence.new.waiting(begun)
      end
    end
  end
end

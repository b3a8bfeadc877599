# frozen_string_literal: true

module Roost
  module Operations
    # Empties a teacher's own list of learning standards.
    class RemoveStandards
      def call(account_id) = Store::Standards.new.remove_all(account_id)
    end
  end
end

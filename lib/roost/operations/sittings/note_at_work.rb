# frozen_string_literal: true

module Roost
  module Operations
    # A student at work alone is still there: so long their time with a slide goes on.
    class NoteAtWork
      # @param seat [Hash] :id
      def call(seat)
        kept = Store::Sittings.new.latest_of_seat(seat[:id])
        Store::Sittings.new.seen(kept.id) if kept
      end
    end
  end
end

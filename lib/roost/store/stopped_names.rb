# frozen_string_literal: true

module Roost
  module Store
    # Names that somebody wanted to join with and that were stopped, until the teacher lets one through.
    class StoppedNames < Repository
      # More than these are not kept for a session.
      MOST = 20

      # Keeps a name; one that is kept already stays as it is.
      # @param name [String]
      def note(session_id, name)
        return if database[:stopped_names].where(session_id: session_id).count >= MOST

        database[:stopped_names].insert_conflict.insert(session_id: session_id, name: name.downcase)
      end

      def allowed?(session_id, name)
        database[:stopped_names].where(session_id: session_id, name: name.downcase).exclude(allowed_at: nil).any?
      end

      # @return [Array<String>] those that wait for the teacher
      def waiting(session_id)
        database[:stopped_names].where(session_id: session_id, allowed_at: nil).order(:at).select_map(:name)
      end

      # @return [Integer] how many such names there were
      def allow(session_id, name)
        database[:stopped_names].where(session_id: session_id, name: name)
                                .update(allowed_at: Sequel.function(:clock_timestamp))
      end
    end
  end
end

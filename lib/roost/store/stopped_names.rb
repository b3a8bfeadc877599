# frozen_string_literal: true

module Roost
  module Store
    # Names that somebody wanted to join with and that were stopped, until the teacher lets one through.
    class StoppedNames < Repository
      # More than these of one device, and of all, are not kept for a session.
      MOST_A_DEVICE = 5
      MOST = 500

      # Keeps a name; one that is kept already stays as it is. Of one device the latest are kept.
      # @param name [String]
      # @param device [String] by which it is known, "" for one that is not
      def note(session_id, name, device: "")
        here = database[:stopped_names].where(session_id: session_id)
        return if here.count >= MOST

        database[:stopped_names].insert_conflict.insert(session_id: session_id, name: name.downcase, device: device)
        of_device = here.where(device: device, allowed_at: nil)
        of_device.where(name: of_device.reverse(:at).offset(MOST_A_DEVICE).select(:name)).delete unless device.empty?
      end

      def allowed?(session_id, name)
        database[:stopped_names].where(session_id: session_id, name: name.downcase).exclude(allowed_at: nil).any?
      end

      # @return [Array<String>] those that wait for the teacher, those of one device beside each other
      def waiting(session_id)
        rows = database[:stopped_names].where(session_id: session_id, allowed_at: nil).order(:at).select_map(%i[name device])
        rows.group_by(&:last).values.flatten(1).map(&:first)
      end

      # @return [Integer] how many such names there were
      def allow(session_id, name)
        database[:stopped_names].where(session_id: session_id, name: name)
                                .update(allowed_at: Sequel.function(:clock_timestamp))
      end
    end
  end
end

# frozen_string_literal: true

require "securerandom"

module Roost
  module Store
    # Receivers of keypads that knock at a session, and the seats of their keypads.
    class Receivers < Repository
      # state:: :waiting, :in or :refused
      Row = Struct.new(:id, :session_id, :name, :state, keyword_init: true)
      MOST = 8 # in one session
      # Seconds after which one that nobody has answered must knock again.
      WAITS = 120
      # Stands for a stream where the receiver says that a keypad is in range.
      STREAM = "keypad"

      # @return [String, nil] the token by which it is known; nil when too many have knocked
      def knock(session_id, name)
        here = database[:receivers].where(session_id: session_id)
        old = Sequel.lit("clock_timestamp() - make_interval(secs => ?)", WAITS)
        here.where(allowed_at: nil).where { created_at < old }.delete
        return nil if here.count >= MOST

        token = SecureRandom.urlsafe_base64(16)
        database[:receivers].insert(session_id: session_id, name: name, token_digest: Seats.digest(token))
        token
      end

      # @return [Row, nil]
      def by_token(token) = read(database[:receivers].where(token_digest: Seats.digest(token))).first

      # @return [Array<Row>] in the order in which they came
      def of(session_id) = read(database[:receivers].where(session_id: session_id).order(:id))

      # @return [Integer] how many there were to answer
      def answer(session_id, id, allowed)
        now = Sequel.function(:clock_timestamp)
        database[:receivers].where(session_id: session_id, id: id)
                            .update(allowed_at: allowed ? now : nil, refused_at: allowed ? nil : now)
      end

      # @return [Hash{String=>Hash}] number of a keypad to :id, :name and :battery_low of its seat
      def keypads(session_id)
        database[:seats].where(session_id: session_id, removed_at: nil).exclude(keypad: nil).order(:keypad)
                        .select(:keypad, :id, :name, :battery_low).to_hash(:keypad)
      end

      # Another person answers with this keypad.
      # @param about [Hash] :student_id and :name
      def give(seat_id, student_id:, name:)
        factor = Seats.new(database).factor_of(student_id)
        database[:seats].where(id: seat_id).update(student_id: student_id, name: name, time_factor: factor)
      end

      def battery(seat_id, low) = database[:seats].where(id: seat_id).update(battery_low: low)

      private

      def read(dataset)
        dataset.select(:id, :session_id, :name, :allowed_at, :refused_at).map do |row|
          state = if row[:allowed_at] then :in
                  else row[:refused_at] ? :refused : :waiting
                  end
          Row.new(**row.slice(:id, :session_id, :name), state: state).freeze
        end
      end
    end
  end
end

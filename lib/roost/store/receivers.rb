# frozen_string_literal: true

require "securerandom"

module Roost
  module Store
    # Receivers of keypads that knock at a session, and the seats of their keypads.
    class Receivers < Repository
      # state:: :waiting, :in or :refused
      Row = Struct.new(:id, :session_id, :name, :state, keyword_init: true)
      MOST = 8 # in one session
      # How many may knock at a time, and how many of them the teacher is shown.
      MOST_WAITING = 40
      # Seconds after which one that nobody has answered must knock again, and after which one that looks no more is gone.
      WAITS = 120
      GONE = 15
      # Stands for a stream where the receiver says that a keypad is in range.
      STREAM = "keypad"

      # Those that only knock make room for others: first the oldest that never looked.
      # @return [String, nil] the token by which it is known; nil when too many have knocked
      def knock(session_id, name)
        here = database[:receivers].where(session_id: session_id)
        waiting = here.where(allowed_at: nil, refused_at: nil)
        here.where(allowed_at: nil).where(Sequel[:created_at] < ago(WAITS)).delete
        waiting.where(id: waiting.where(seen_at: nil).order(:id).limit(1).select(:id)).delete if waiting.count >= MOST_WAITING
        return nil if waiting.count >= MOST_WAITING

        token = SecureRandom.urlsafe_base64(16)
        database[:receivers].insert(session_id: session_id, name: unlike_others(here, name), token_digest: Seats.digest(token))
        token
      end

      # It looked what is on.
      def looked(id) = database[:receivers].where(id: id).update(seen_at: Sequel.function(:clock_timestamp))

      # @return [Row, nil]
      def by_token(token) = read(database[:receivers].where(token_digest: Seats.digest(token))).first

      # @return [Array<Row>] in the order in which they came, those that only knocked left out
      def of(session_id)
        all = database[:receivers].where(session_id: session_id)
        looking = Sequel.|(Sequel.~(allowed_at: nil), Sequel.~(refused_at: nil), Sequel[:seen_at] > ago(GONE))
        read(all.where(looking).order(:id).limit(MOST_WAITING))
      end

      # @return [Boolean] false when there are enough already
      def room?(session_id) = database[:receivers].where(session_id: session_id).exclude(allowed_at: nil).count < MOST

      # One that is let in takes over the keypads of one of that name that looks no more: it was started anew.
      # @return [Integer] how many there were to answer
      def answer(session_id, id, allowed)
        now = Sequel.function(:clock_timestamp)
        take_over(session_id, id) if allowed
        database[:receivers].where(session_id: session_id, id: id)
                            .update(allowed_at: allowed ? now : nil, refused_at: allowed ? nil : now)
      end

      # @param receiver_id [Integer]
      # @return [Hash{String=>Hash}] number of a keypad to :id, :name and :battery_low of its seat
      def keypads(session_id, receiver_id)
        seats_of(session_id).where(receiver_id: receiver_id).to_hash(:keypad)
      end

      # @return [Array<Hash>] of all receivers: :keypad, :receiver_id, :id, :name and :battery_low
      def all_keypads(session_id) = seats_of(session_id).all

      # Another person answers with this keypad.
      # @param student_id [Integer, nil]
      # @param name [String]
      def give(seat_id, student_id:, name:)
        factor = Seats.new(database).factor_of(student_id)
        database[:seats].where(id: seat_id).update(student_id: student_id, name: name, time_factor: factor)
      end

      def battery(seat_id, low) = database[:seats].where(id: seat_id).update(battery_low: low)

      private

      def ago(seconds) = Sequel.lit("clock_timestamp() - make_interval(secs => ?)", seconds)

      def seats_of(session_id)
        database[:seats].where(session_id: session_id, removed_at: nil).exclude(keypad: nil).order(:keypad, :id)
                        .select(:keypad, :receiver_id, :id, :name, :battery_low)
      end

      # Two that are called alike would look alike to the teacher.
      def unlike_others(here, name)
        taken = here.select_map(:name)
        numbered = (2..).lazy.map { |number| "#{name} #{number}" }
        taken.include?(name) ? numbered.find { |each| !taken.include?(each) } : name
      end

      def take_over(session_id, id)
        here = database[:receivers].where(session_id: session_id)
        name = here.where(id: id).get(:name).to_s.sub(/ \d+\z/, "")
        gone = here.exclude(id: id).where(Sequel.|({ seen_at: nil }, Sequel[:seen_at] < ago(GONE)))
                   .where(Sequel.lit("regexp_replace(name, ' [0-9]+$', '') = ?", name)).select_map(:id)
        free = database[:seats].where(session_id: session_id, receiver_id: id, removed_at: nil).select(:keypad)
        database[:seats].where(session_id: session_id, receiver_id: gone).exclude(keypad: free).update(receiver_id: id)
      end

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

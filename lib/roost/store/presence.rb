# frozen_string_literal: true

module Roost
  module Store
    # Who is here: of a seat, the key of its open stream and when a web process last saw it; how good its line is. Part of Seats.
    module Presence
      # A stream not seen for this long is taken for gone: its process was killed.
      STALE = 15
      # Stands for a stream where a window has none.
      PAGE = "page"

      # @param seat_id [Integer, Array<Integer>]
      # @param asked [Boolean] whether the stream begins with a heartbeat that wants an answer
      def arrive(seat_id, stream_key, asked: false)
        now = Sequel.function(:clock_timestamp)
        changes = { stream_key: stream_key, seen_at: now, left_at: nil, hidden_at: nil }
        changes[:asked_at] = Sequel.function(:coalesce, :asked_at, now) if asked
        database[:seats].where(id: seat_id).update(changes)
      end

      # A page was fetched: the seat is here, for a while, also without a stream. Who was seen a moment ago has just come in.
      # @param device [String, nil] on which; browser [String] what it says it is
      def looked(seat_id, device: nil, browser: "")
        return prepared(:seat_looked) { database[LOOKED, :$seat_id] }.call(seat_id: seat_id) unless device

        prepared(:seat_opened) { database[OPENED, :$seat_id, :$seat_id, :$device, :$browser, :$browser] }
          .call(seat_id: seat_id, device: device, browser: browser)
      end

      JUST = 3 # seconds
      LOOKED = <<~SQL.freeze
        UPDATE seats SET stream_key = '#{PAGE}', seen_at = clock_timestamp(), left_at = NULL, hidden_at = NULL
        WHERE id = ? AND (stream_key IS NULL OR seen_at < clock_timestamp() - interval '#{STALE} seconds'
          OR stream_key = '#{PAGE}' AND (hidden_at IS NOT NULL OR seen_at < clock_timestamp() - interval '#{JUST} seconds'))
      SQL
      OPENED = <<~SQL.freeze
        WITH looked AS (#{LOOKED})
        INSERT INTO seat_devices (seat_id, device, browser) VALUES (?, ?, ?)
        ON CONFLICT (seat_id, device) DO UPDATE SET last_at = clock_timestamp(), browser = ?
      SQL
      private_constant :JUST, :LOOKED, :OPENED

      # The seat's window is in the background, or not any more.
      # @return [Integer] 1 where that is new, else 0
      def hide(seat_id, hidden)
        now = hidden ? Sequel.function(:clock_timestamp) : nil
        database[:seats].where(id: seat_id).exclude((Sequel[:hidden_at] !~ nil) => hidden).update(hidden_at: now)
      end

      # Only the stream that is the seat's present one can leave.
      def leave(stream_keys)
        unanswered = Sequel.function(:coalesce, :asked_at, Sequel.function(:clock_timestamp))
        database[:seats].where(stream_key: stream_keys)
                        .update(stream_key: nil, asked_at: unanswered, left_at: Sequel.function(:clock_timestamp))
      end

      def still_here(stream_keys)
        database[:seats].where(stream_key: stream_keys).update(seen_at: Sequel.function(:clock_timestamp))
      end

      # A heartbeat that wants an answer went out; the oldest that has none is the one that counts.
      def asked(stream_keys)
        database[:seats].where(stream_key: stream_keys, asked_at: nil).update(asked_at: Sequel.function(:clock_timestamp))
      end

      # Heartbeats were answered (Core::Session::LineDelay::Line).
      # @param seat_ids [Array<Integer>]
      def heard(seat_ids)
        database[:seats].where(id: seat_ids).exclude(asked_at: nil).update(HEARD)
      end

      HEARD = begin
        now = Sequel.function(:clock_timestamp)
        slow = Sequel.lit("clock_timestamp() - asked_at > make_interval(secs => ?)", Core::Session::LineDelay::PROMPT)
        { round_trip: Sequel.lit("date_part('epoch', clock_timestamp() - asked_at)"), heard_at: now, asked_at: nil,
          bad_from: Sequel.case({ slow => Sequel.function(:coalesce, :heard_at, :asked_at) }, :bad_from),
          bad_until: Sequel.case({ slow => now }, :bad_until) }.freeze
      end
      private_constant :HEARD
    end
  end
end

# frozen_string_literal: true

require "set"

module Roost
  module Live
    # Turns notices into bytes: reads the session once, builds the view of each open
    # stream, renders each distinct view once, writes it to all that share it. Sessions are
    # served side by side, each by one thread at a time, so that a large one does not hold up
    # the others.
    class Broadcaster
      # Ruby lets a thread compute for 100 ms before another gets its turn, and half as long for
      # each step of priority below 0: so that whoever waits for one of these waits 12 ms.
      PRIORITY = -3

      # address:: where it comes from; sign_in:: that it stands and falls with, or nil; key:: of this stream
      Recipient = Struct.new(:audience, :session_id, :seat_id, :address, :sign_in, :key, keyword_init: true)

      # @param hub [Hub] whose streams are about a Recipient
      # @param renderer [#call] makes what turns views into fragments, for one thread:
      #   #seat, #screen and #desk take a view and the present time, #for_seat gives what #seat made
      #   as one seat gets it
      # @param on_close [#call] called with a session's id when answering has ended there
      def initialize(hub:, renderer:, on_close:)
        @hub = hub
        @renderer = renderer
        @on_close = on_close
        @pending = {}
        @welcome = Hash.new { |hash, session_id| hash[session_id] = [] }
        @lock = Mutex.new
        @wake = ConditionVariable.new
        @mirrors = {}
        @deadlines = {}
        @answering = {}
        @boards = {}
        @late_boards = Set.new
        @busy = Set.new
      end

      def start
        @running = true
        @threads = Array.new(Roost.settings.broadcasters) { Thread.new { work } }
        @threads.each do |thread|
          thread.name = "roost-broadcaster"
          thread.priority = PRIORITY
        end
      end

      def stop
        @lock.synchronize do
          @running = false
          @wake.broadcast
        end
        @threads&.each { |thread| thread.join(2) }
      end

      # Something about the session has changed; soon its streams will know.
      # @param scope [Symbol] as in Bus, :sweep (send what differs from what was sent) or :board
      #   (send seats the board)
      def notice(session_id, scope)
        @lock.synchronize do
          (@pending[session_id] ||= Set.new) << scope
          @wake.signal
        end
      end

      # A stream is new and gets the present view.
      def welcome(stream)
        @lock.synchronize do
          @welcome[stream.about.session_id] << stream
          @wake.signal
        end
      end

      # Sends seats the boards that have changed since this was last called: a board of a class is
      # large, and there are as many copies of it as seats.
      def show_boards
        late = @lock.synchronize { @late_boards.to_a.tap { @late_boards.clear } }
        late.each { |session_id| notice(session_id, :board) }
      end

      # Forgets every session but these: nobody here is looking at the others.
      def keep_only(session_ids)
        @lock.synchronize do
          @mirrors.keep_if { |id, _mirror| session_ids.include?(id) }
          @deadlines.keep_if { |id, _deadline| session_ids.include?(id) }
          @answering.keep_if { |id, _until| session_ids.include?(id) }
          @boards.keep_if { |id, _tally| session_ids.include?(id) }
        end
      end

      # @return [Hash{Integer=>Float}] session id to the deadline of its open prompt
      def deadlines = @lock.synchronize { @deadlines.dup }

      # Sessions whose open question is being answered, or was until just now.
      # @return [Array<Integer>] ids
      def answering = @lock.synchronize { @answering.select { |_, ending| ending.nil? || ending > clock }.keys }

      private

      attr_reader :hub

      def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

      def work
        Thread.current[:fragments] = @renderer.call
        work_once while @running
      end

      def renderer = Thread.current[:fragments]

      def work_once
        session_id, scopes, newcomers = take
        return unless session_id

        begin
          broadcast(session_id, scopes, newcomers)
        ensure
          @lock.synchronize do
            @busy.delete(session_id)
            @wake.signal
          end
        end
      rescue StandardError => e
        # What goes wrong with one session must not silence the others. When it is the
        # database, the bus reports its return and everything is sent again.
        warn "broadcast put off: #{e.class} at #{e.backtrace&.first}"
        sleep 0.2
      end

      # The session that has waited longest among those nobody is at work on.
      def take
        @lock.synchronize do
          @wake.wait(@lock, 1) if @running && waiting.nil?
          session_id = waiting
          next nil unless session_id

          @busy << session_id
          [session_id, @pending.delete(session_id) || Set.new, @welcome.delete(session_id) || []]
        end
      end

      def waiting = @pending.each_key.find { |id| !@busy.include?(id) } || @welcome.each_key.find { |id| !@busy.include?(id) }

      def broadcast(session_id, scopes, newcomers)
        streams = hub.streams.select { |stream| stream.about.session_id == session_id }
        return if streams.empty?

        mirror = @lock.synchronize { @mirrors[session_id] ||= Mirror.new(session_id) }
        snapshot = mirror.snapshot(people: newcomers.any? || scopes.any? { |scope| scope != :answers })
        return streams.each { |stream| hub.drop(stream) } unless snapshot

        note_question(session_id, snapshot.state)
        now = mirror.record.now
        by_audience = streams.group_by { |stream| stream.about.audience }
        send_seats(snapshot, by_audience.fetch(:seat, []), scopes, newcomers, now)
        send_all(snapshot, by_audience.fetch(:screen, []), now) { Core::Room::Views.screen(snapshot) }
        send_all(snapshot, by_audience.fetch(:desk, []), now) { Core::Room::Views.desk(snapshot) }
      end

      def note_question(session_id, state)
        closed = @lock.synchronize do
          @deadlines[session_id] = state.open? ? state.run.deadline : nil
          before = @answering.key?(session_id) && @answering[session_id].nil?
          if state.open? then @answering[session_id] = nil
          elsif before then @answering[session_id] = clock + Core::Room::LineDelay::MOST
          end
          before && !state.open?
        end
        @on_close.call(session_id) if closed
      end

      def send_seats(snapshot, streams, scopes, newcomers, now)
        streams &= newcomers unless all_seats?(snapshot, scopes)
        return if streams.empty?

        by_seat = streams.group_by { |stream| stream.about.seat_id }
        Core::Room::Views.seats(snapshot, by_seat.keys).each do |view, seat_ids|
          html = renderer.seat(view, now)
          shared = nil
          seat_ids.each do |seat_id|
            own = renderer.for_seat(html, view, seat_id)
            event = own.equal?(html) ? shared ||= event(snapshot, html) : event(snapshot, own)
            by_seat[seat_id].each { |stream| hub.write(stream, event) }
          end
        end
        note_delivery(snapshot, by_seat.keys)
      end

      # Seats hear of commands only: what others answer is nothing to them. But for a board: where
      # that has changed, they are sent it when boards are shown next.
      def all_seats?(snapshot, scopes)
        board = snapshot.live_board? ? snapshot.class_tally : nil
        changed = board && @boards[snapshot.id] != board
        everybody = scopes.include?(:state) || (changed && scopes.include?(:board)) || false
        @lock.synchronize do
          @late_boards << snapshot.id if changed && !everybody
          @boards[snapshot.id] = board if everybody
        end
        everybody
      end

      def note_delivery(snapshot, seat_ids)
        return unless snapshot.state.open?

        seat_ids -= snapshot.shown.fetch(snapshot.state.slide_id, {}).keys
        Store::Answers.new.delivered(snapshot.id, snapshot.state.slide_id, seat_ids) if seat_ids.any?
      end

      # The class screen and the Desk get a view when it differs from the last one.
      def send_all(snapshot, streams, now)
        return if streams.empty?

        view = yield
        behind = streams.reject { |stream| stream.sent == view }
        return if behind.empty?

        event = event(snapshot, renderer.public_send(streams.first.about.audience, view, now))
        behind.each do |stream|
          hub.write(stream, event)
          stream.sent = view
        end
      end

      def event(snapshot, html) = "id: #{snapshot.version}\n#{html.gsub(/^/, "data: ").chomp}\n\n"
    end
  end
end

# frozen_string_literal: true

require "securerandom"
require "set"

module Roost
  module Live
    # The live half of one web process: bus, hub and dispatcher with its audiences; a heart that
    # beats whatever else happens; and the ticker that drives what happens by time: announcing
    # sessions with new answers, closing questions whose deadline has passed, and who is still here.
    class Engine
      TICK = 0.1 # seconds
      REHEARSAL = 10 # ticks
      BOARDS = 20 # ticks
      SWEEP = 50 # ticks
      # Streams of one process.
      MOST_A_SEAT = 6
      # Of those, that belong to no seat, from one address: at one screen or Desk.
      MOST_AT_ONE = 12
      SAME_SCREEN = %i[audience address sign_in].freeze
      BEAT = "event: beat\ndata: .\n\n"
      # A heartbeat that the device answers, so that it is known how good its line is.
      ASKING = "event: beat\ndata: ?\n\n"

      # @param renderer [#call] see Dispatcher
      # @param expire [#call] closes the question of a session (id) whose deadline has passed
      # @param rehearse [#call] lets a session's practice class go on; true when it did something
      # @param tick [Numeric] seconds; everything that happens by time goes by it
      def initialize(renderer:, expire:, rehearse:, tick: TICK)
        @expire = expire
        @rehearse = rehearse
        @tick = tick
        @hub = Hub.new(on_close: method(:left))
        @questions = OpenQuestions.new
        @audiences = audiences
        @dispatcher = Dispatcher.new(hub: @hub, audiences: @audiences, renderer: renderer, on_moment: method(:noted))
        @bus = Bus.new(on_notice: method(:noticed), on_return: method(:renew), on_ink: method(:relay), look: 5 * tick)
        @listeners = { state: [], seats: [] }
        @dirty = Set.new
        @gone = []
        @heard = Set.new
        @ask = Set.new
        @practising = Set.new
        @lock = Mutex.new
        @ending = ConditionVariable.new
      end

      def start
        @running = true
        [@hub, @dispatcher, @bus].each(&:start)
        @threads = { "roost-heart" => method(:beat), "roost-ticker" => method(:tick) }.map do |name, work|
          Thread.new { work.call while @running }.tap { |thread| thread.name = name }
        end
        self
      end

      def stop
        @running = false
        @lock.synchronize { @ending.broadcast }
        @threads&.each { |thread| thread.join(2) || thread.kill }
        [@bus, @dispatcher, @hub].each(&:stop)
      end

      # Takes over a device's socket. `from` says :address and :sign_in, see Recipient. May be called from any thread.
      def connect(io, audience:, session_id:, seat_id: nil, **from)
        about = Recipient.new(audience: audience, session_id: session_id, seat_id: seat_id, **from,
                              key: SecureRandom.hex(8)).freeze
        if seat_id
          Store::Seats.new.arrive(seat_id, about.key, asked: true)
          touched(session_id, :people)
        end
        stream = @hub.add(io, about, group: session_id)
        @dispatcher.notice(session_id, seat_id ? :people : :seats)
        drop_oldest(about)
        @hub.write(stream, ASKING) if seat_id
      end

      # A seat's device has answered a heartbeat. May be called from any thread.
      def heard(seat_id) = @lock.synchronize { @heard << seat_id }

      # Something of this session has changed in this process; told to all processes at the
      # next tick, at most ten times a second.
      # @param scope [Symbol] :answers or :people, as in Bus
      def touched(session_id, scope = :answers) = @lock.synchronize { @dirty << [session_id, scope] }

      # Calls the block whenever a command has changed a session, in whatever process: with its
      # id, or with nil when any may have changed because the database was away.
      def on_command(&block) = @listeners[:state] << block

      # The same, when a seat was renamed or removed.
      def on_seats(&block) = @listeners[:seats] << block

      private

      # A device that comes back often may have left streams behind that nobody has missed yet. Whoever opens one after the
      # other at a screen has the last ones, and takes nobody else's.
      def drop_oldest(about)
        streams = @hub.streams_of(about.session_id)
        own = if about.seat_id then streams.select { |each| each.about.seat_id == about.seat_id }
              else streams.select { |each| SAME_SCREEN.all? { |name| each.about[name] == about[name] } }
              end
        most = about.seat_id ? MOST_A_SEAT : MOST_AT_ONE
        own[0...-most].each { |stream| @hub.drop(stream) } if own.length > most
      end

      def noticed(session_id, scope, step)
        tell(scope, session_id)
        @dispatcher.notice(session_id, scope, step)
      end

      def relay(session_id, text) = @audiences.each { |audience| audience.relay(session_id, text) }

      def tell(scope, session_id) = @listeners.fetch(scope, []).each { |listener| listener.call(session_id) }

      def audiences
        # Seats first: they are the many, and what they get needs least.
        [Audiences::Seats.new(@hub), Audiences::Screen.new(@hub), Audiences::Desk.new(@hub), Audiences::Pen.new(@hub),
         Audiences::Team.new(@hub),
         Audiences::Board.new(@hub, every: BOARDS * @tick)]
      end

      # Until the time is over or the engine stops.
      def pause(seconds) = @lock.synchronize { @ending.wait(@lock, seconds) if @running }

      # Asks nothing of the database, so that no stream ends because that is away.
      def beat
        pause(SWEEP * @tick)
        @hub.streams.each { |stream| @hub.write(stream, BEAT) }
      end

      def tick
        pause(@tick)
        @ticks = (@ticks || 0) + 1
        attempt { say_goodbyes }
        attempt { listen }
        attempt { announce_dirty }
        attempt { close_expired }
        attempt { rehearse } if (@ticks % REHEARSAL).zero?
        attempt { sweep } if (@ticks % SWEEP).zero?
      end

      # What fails is tried again with a later tick; nothing is forgotten until it is done.
      def attempt
        yield
      rescue StandardError => e
        Fault.note("tick put off", e)
      end

      # Only where a practice class sits.
      def rehearse
        @lock.synchronize { @practising.to_a }.each { |id| touched(id, :people) if @rehearse.call(id) }
      end

      def announce_dirty
        dirty = @lock.synchronize { @dirty.to_a.tap { @dirty.clear } }
        Bus.announce_all(dirty) if dirty.any?
      rescue Sequel::DatabaseError
        @lock.synchronize { @dirty.merge(dirty) }
        raise
      end

      def close_expired
        deadlines = @questions.deadlines
        return if deadlines.empty?

        now = Store::Sessions.new.now
        deadlines.each do |session_id, deadline|
          attempt { @expire.call(session_id) } if now > deadline + Core::Session::Opening::GRACE
        end
      end

      def noted(moment)
        practice = moment.seats.any?(&:practice)
        @lock.synchronize { practice ? @practising << moment.id : @practising.delete(moment.id) }
        closed(moment.id) if @questions.note(moment)
      end

      # Answering has ended in a session: whose line is good now?
      def closed(session_id) = @lock.synchronize { @ask << session_id }

      def listen
        heard, sessions = @lock.synchronize { [@heard.to_a.tap { @heard.clear }, @ask.to_a.tap { @ask.clear }] }
        Store::Seats.new.heard(heard) if heard.any?
        ask_all(sessions) if sessions.any?
      rescue Sequel::DatabaseError
        @lock.synchronize { [@heard.merge(heard), @ask.merge(sessions)] }
        raise
      end

      def ask_all(session_ids)
        ask(session_ids.flat_map { |id| @hub.streams_of(id) }.select { |stream| stream.about.seat_id })
      end

      def ask(streams)
        Store::Seats.new.asked(streams.map { |stream| stream.about.key }) if streams.any?
        streams.each { |stream| @hub.write(stream, ASKING) }
      end

      def left(stream)
        @lock.synchronize { @gone << stream.about } if stream.about.seat_id
      end

      def say_goodbyes
        gone = @lock.synchronize { @gone.dup }
        return if gone.empty?

        Store::Seats.new.leave(gone.map(&:key))
        @lock.synchronize { @gone -= gone }
        gone.map(&:session_id).uniq.each { |session_id| touched(session_id, :people) }
      end

      # Who is still here, and views that changed without a notice: seats whose process was killed
      # turn away by themselves.
      def sweep
        each_session { |id| @dispatcher.notice(id, :sweep) }
        [@dispatcher, @questions].each { |each| each.keep_only(sessions) }
        @lock.synchronize { @practising &= sessions }
        ask_all(@questions.answering)
        streams = @hub.streams
        keys = streams.select { |stream| stream.about.seat_id }.map { |stream| stream.about.key }
        Store::Seats.new.still_here(keys) if keys.any?
        drop_signed_out(streams)
      end

      # A Desk's stream ends with the sign-in it was opened under.
      def drop_signed_out(streams)
        theirs = streams.select { |stream| stream.about.sign_in }.group_by { |stream| stream.about.sign_in }
        return if theirs.empty?

        gone = theirs.except(*Store::SignIns.new.standing(theirs.keys))
        gone.values.flatten.each { |stream| @hub.drop(stream) }
      end

      def renew
        @listeners.each_key { |scope| tell(scope, nil) }
        each_session { |id| %i[people state].each { |scope| @dispatcher.notice(id, scope) } }
      end

      def sessions = @hub.groups

      def each_session(&block) = sessions.each(&block)
    end
  end
end

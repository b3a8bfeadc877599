# frozen_string_literal: true

require "set"

module Roost
  module Live
    # Turns notices into bytes: reads the session once, lets each audience serve its streams.
    # Sessions are served side by side, each by one thread at a time, so that a large one does not
    # hold up the others. Knows no audience by name, no kind of prompt and no board.
    class Dispatcher
      # Seconds for which arrivals and departures wait for others: all seats are read again for them.
      ARRIVALS = 0.25

      # @param hub [Hub] whose streams are about a Recipient, grouped by session
      # @param audiences [Array<Audience>]
      # @param renderer [#call] makes what turns views into fragments, for one thread:
      #   #seat, #screen and #desk take a view and the present time, #for_seat gives what #seat made
      #   as one seat gets it
      # @param on_moment [#call] called with a session's present Core::Session::Moment whenever it is read
      def initialize(hub:, audiences:, renderer:, on_moment:)
        @hub = hub
        @audiences = audiences
        @renderer = renderer
        @on_moment = on_moment
        @queue = WorkQueue.new
        @throttle = Throttle.new
        @caches = {}
        @steps = {}
        @served = {}
        @lock = Mutex.new
      end

      def start
        @running = true
        @threads = Array.new(Roost.settings.dispatchers) { Thread.new { work } }
        @threads.each { |thread| thread.name = "roost-dispatcher" }
      end

      def stop
        @running = false
        @queue.wake_all
        @threads&.each { |thread| thread.join(2) }
      end

      # Something about the session has changed, or a stream is new; soon its streams will know, of a
      # command at once.
      # @param scope [Symbol] as in Bus, :sweep (send what differs from what was sent), :people
      #   (somebody came or went) or :seats (as in Bus; also that a stream is new that should not wait)
      # @param step [Core::Session::StepOn, nil] what a command changed, where that was told
      def notice(session_id, scope, step = nil)
        @lock.synchronize { (@steps[session_id] ||= []) << step } if scope == :state
        rest = scope == :state ? 0 : @throttle.rest(session_id)
        @queue.add(session_id, [scope], after: scope == :people ? [rest, ARRIVALS].max : rest)
      end

      # Forgets every session but these: nobody here is looking at the others.
      def keep_only(session_ids)
        @throttle.keep_only(session_ids)
        @lock.synchronize do
          [@caches, @steps].each { |all| all.keep_if { |id, _| session_ids.include?(id) } }
          @served.keep_if { |(id, _), _| session_ids.include?(id) }
        end
      end

      private

      attr_reader :hub

      def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

      def work
        renderer = @renderer.call
        work_once(renderer) while @running
      end

      def work_once(renderer)
        session_id, scopes = @queue.take
        return unless session_id

        failed = scopes | [:people] # then as if nothing were known
        begin
          @throttle.serve(session_id) { serve(session_id, scopes, renderer) }
          failed = nil
        rescue StandardError => e
          # What goes wrong with one session must not silence the others.
          Fault.note("told later", e)
        ensure
          @queue.done(session_id, failed: failed)
        end
      end

      def serve(session_id, scopes, renderer)
        streams = hub.streams_of(session_id)
        by_surface = streams.group_by { |stream| stream.about.audience }
        return unless @audiences.any? { |each| each.concerned?(by_surface.fetch(each.surface, []), scopes) }

        cache, steps = @lock.synchronize do
          [@caches[session_id] ||= SessionCache.new(session_id), @steps.delete(session_id)]
        end
        # Who is new may sit where nobody sat.
        moment = cache.moment(streams.all?(&:sent) ? scopes : scopes | [:people], steps: steps.to_a)
        return streams.each { |stream| hub.drop(stream) } unless moment

        @on_moment.call(moment)
        serve_all(moment, by_surface, scopes, renderer, cache.row.now)
      end

      # Where one audience can't be served, the others are.
      def serve_all(moment, by_surface, scopes, renderer, now)
        failures = @audiences.filter_map do |audience|
          behind, mark = audience.behind(moment, by_surface.fetch(audience.surface, []), scopes)
          audience.send_to(behind, moment, mark, renderer, now) if behind.any? && turn?(audience, moment.id)
          nil
        rescue StandardError => e
          e
        end
        raise failures.first if failures.any?
      end

      # Whether the audience may be sent something now; if it was just now, it is when its time has come.
      def turn?(audience, session_id)
        return true if audience.every.zero?

        key = [session_id, audience]
        due = @lock.synchronize { @served.fetch(key, -Float::INFINITY) } + audience.every
        if clock < due
          @queue.add(session_id, [:answers], after: due - clock)
          return false
        end
        @lock.synchronize { @served[key] = clock }
        true
      end
    end
  end
end

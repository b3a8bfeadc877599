# frozen_string_literal: true

module Bench
  class Kinds
    # Thirty seats send a growing sketch twice a second: from a draft sent to the Desk's list
    # naming its new picture, and how long that picture takes to come.
    class Sketch
      GOALS = { sketch_live_ms_p95: "none set" }.freeze
      DRAWERS = 30
      DRAFTS = 16
      PAUSE = 0.5 # seconds between the drafts of one seat

      # @param kinds [Kinds]
      # @param server [Server]
      def initialize(kinds, server)
        @kinds = kinds
        @server = server
        @http, @headers = server.teacher
      end

      # @return [Hash{Symbol=>Numeric}]
      def call
        session = @kinds.session(Roost::Core::Kinds::Sketch::Prompt.new(id: "p1", settings: {}))
        seats = Array.new(DRAWERS) { |number| Roost::Store::Seats.new.create(session.id, "Student #{number}") }
        stream = @kinds.desk(session)
        seen = Queue.new
        bytes = 0
        watching = Thread.new { watch(stream, seen) { |size| bytes += size } }
        began = Bench.clock
        sent = seats.map { |seat_id, token| Thread.new { draw(seat_id, token) } }.flat_map(&:value)
        took = Bench.clock - began
        sleep 1
        watching.kill
        stream.close
        waits = waits(sent, Array.new(seen.length) { seen.pop })
        { sketch_live_ms_p95: (waits.sort[(waits.length * 0.95).ceil - 1] * 1000).round,
          sketch_live_ms_median: (Bench.median(waits) * 1000).round,
          sketch_desk_kb_s: (bytes / 1000.0 / took).round, sketch_picture_ms: picture(seats) }
      end

      private

      # @return [Array<Array(Integer, Float)>] seat and time of each draft
      def draw(seat_id, token)
        points = [100, 100]
        Net::HTTP.start(Server::HOST, @server.port) do |http|
          Array.new(DRAFTS) do |turn|
            sleep PAUSE
            20.times { |step| points.push((points[-2] + 11) % 1200, 200 + ((step * 37) % 500)) }
            at = Bench.clock
            strokes = JSON.generate([{ tool: "pen", colour: "ink", points: points }])
            body = JSON.generate(slide: "s1", fields: { strokes: [strokes] }, final: false, save_no: turn + 1,
                                 save_id: SecureRandom.uuid)
            http.post("/answers/#{token}", body, { "content-type" => "application/json" })
            [seat_id, at]
          end
        end
      end

      # What the picture of a seat is called.
      def name(seat_id) = Roost::Web::AnswerPictures.ids.encode(seat_id, "s1")

      # Notes for each seat when its picture's version changed.
      def watch(stream, seen)
        versions = {}
        loop do
          stream.wait_until do |text|
            while (event = text.slice!(/\A.*?\n\n/m))
              yield event.bytesize
              now = Bench.clock
              event.scan(%r{/given/([\w-]+)\?v=(\h+)}) do |name, version|
                seen << [name, now] if versions[name] != version
                versions[name] = version
              end
            end
            true
          end
        end
      end

      # Each draft is at the Desk with the first new picture of its seat after it.
      def waits(sent, seen)
        by_seat = seen.group_by(&:first)
        sent.filter_map do |seat_id, at|
          shown = by_seat.fetch(name(seat_id), []).map(&:last).find { |time| time > at }
          shown && (shown - at)
        end
      end

      def picture(seats)
        Bench.median(seats.map do |seat_id, _token|
          began = Bench.clock
          @http.get("/given/#{name(seat_id)}?v=1", @headers)
          (Bench.clock - began) * 1000
        end).round(1)
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # Renders the live part of each surface from its view, for a page and for a stream
    # alike. Knows nothing of the request it is for. One thread uses it at a time.
    class Fragments
      # What the class screen and the Desk are rendered with.
      class Stage
        include Rendering
        include ItemIdPlaceholders
        include Brief

        # Things, and as much about each.
        MOST_KEPT = 100

        # A surface from its view, at the times of now.
        def surface(name, view, now)
          @school_time = nil
          partial(name, view: view, now: now)
        end

        # The views of one session are rendered one after the other, by one thread.
        def once(thing)
          @once = [thing, yield] unless @once && @once[0].equal?(thing)
          @once[1]
        end

        # Desks list the same answers again with each one that comes.
        def kept(thing, *more)
          all = (@kept ||= {}.compare_by_identity)
          all.shift if all.length >= MOST_KEPT && !all.key?(thing)
          of_thing = (all[thing] ||= {})
          of_thing.shift if of_thing.length >= MOST_KEPT && !of_thing.key?(more)
          of_thing[more] ||= yield
        end
      end

      # What seats are rendered with.
      class Seats < Stage
        include Queued
      end

      def initialize
        @stage = Stage.new
        @seats = Seats.new
      end

      # @param view [Core::Session::Views::Seat]
      # @param now [Float] epoch seconds by the database clock
      def seat(view, now) = @seats.surface("seat/live", view, now)

      # The seats' fragment as one of them gets it.
      # @param html [String] of #seat
      def for_seat(html, view, seat_id)
        slide = view.slide
        return html unless slide&.prompt&.shuffle?

        ItemIdPlaceholders.fill(html, Operations::SaveAnswer.names({ id: seat_id, session_id: view.session_id }, slide))
      end

      # @param view [Core::Session::Views::Screen]
      def screen(view, now) = @stage.surface("screen/live", view, now)

      # @param view [Core::Session::Views::Desk]
      def desk(view, now) = @stage.surface("desk/live", view, now)
    end
  end
end

# frozen_string_literal: true

module Roost
  module Live
    # A kind of listener. Each is one object with four answers: what wakes it (#wakes?), which of
    # its streams are behind (#mark, #behind?), what view and fragment they get (#send_to), how often
    # at most (#every). What was sent to a stream is noted there as a mark: a stream with another
    # mark than the present one is behind; one without a mark is new, and behind whatever has woken
    # whom.
    class Audience
      # Seconds between two times that the streams of a session are sent something.
      attr_reader :every

      # @param hub [Hub] whose streams are about a Recipient
      # @param every [Numeric] seconds
      def initialize(hub, every: 0)
        @hub = hub
        @every = every
      end

      # What its streams are opened for (Recipient#audience).
      # @return [Symbol]
      def surface = raise(NotImplementedError)

      # @param scopes [Set<Symbol>] as in Bus, or :sweep
      # @param streams [Array<Hub::Stream>] of this surface, of one session
      def wakes?(_scopes, _streams) = true

      # Whether any of these streams may have to be sent something, as far as can be said before the session
      # is looked at.
      def concerned?(streams, scopes) = streams.any? && (wakes?(scopes, streams) || streams.any? { |stream| stream.sent.nil? })

      # @param moment [Core::Session::Moment]
      # @return what tells, compared with what was sent, whether a stream is behind
      def mark(_moment) = raise(NotImplementedError)

      # Whether a stream that was sent `before` has to be sent the present.
      def behind?(before, mark) = before != mark

      # @param streams [Array<Hub::Stream>] of this surface, of one session
      # @param scopes [Set<Symbol>]
      # @return [Array(Array<Hub::Stream>, mark)] those that have to be sent something, and the mark of that
      def behind(moment, streams, scopes)
        streams = streams.select { |stream| stream.sent.nil? } unless wakes?(scopes, streams)
        return [[], nil] if streams.empty?

        mark = mark(moment)
        [streams.select { |stream| stream.sent.nil? || behind?(stream.sent, mark) }, mark]
      end

      # Writes each stream what it gets and notes what that was.
      # @param renderer see Dispatcher
      # @param now [Float] epoch seconds by the database clock
      def send_to(streams, moment, mark, renderer, now)
        event = event(moment, fragment(mark, renderer, now))
        streams.each { |stream| write(stream, event, mark) }
      end

      # What is passed on to all as it came, without anything being read.
      # @param text [String] that the pen drew
      def relay(_session_id, _text) = nil

      private

      attr_reader :hub

      def write(stream, event, mark)
        hub.write(stream, event)
        stream.sent = mark
      end

      # A server-sent event: the fragment, with the session's version as its id.
      def event(moment, html) = "id: #{moment.version}\ndata: #{html.chomp.gsub("\n", "\ndata: ")}\n\n"
    end
  end
end

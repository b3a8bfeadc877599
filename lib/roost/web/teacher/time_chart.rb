# frozen_string_literal: true

module Roost
  module Web
    # Shares over time as a picture: a line with its points, and where there is one, the band of the middle half of a class.
    class TimeChart
      HEIGHT = 220
      LEFT = 46
      FOOT = 30
      # A point of the line. at:: epoch seconds; share:: 0 to 1; band:: [lower, upper] or nil; said:: what a reader is told of it
      Point = Struct.new(:at, :share, :band, :said, keyword_init: true)
      # A date needs so much room.
      DATE = 120

      # @param points [Array<Point>] in the order of time, at least one
      # @param name [String] what it shows, for readers who don't see it
      # @param date [#call] says a day (epoch seconds)
      # @param mark [Rational, nil] a share at which a line is drawn
      # @param width [Integer] as wide as the place for it, about
      def initialize(points, name:, date:, mark: nil, width: 900)
        @mark = mark
        @points = points
        @width = width
        @name = name
        @date = date
      end

      # @return [String] SVG
      def svg
        %(<svg class="time-chart" viewBox="0 0 #{@width} #{HEIGHT}" role="img" aria-label="#{escape(@name)}">) +
          "#{lines}#{marked}#{band}#{path}#{dots}#{dates}</svg>"
      end

      private

      def lines
        [0, 1/2r, 1].map do |share|
          %(<line class="time-line" x1="#{LEFT}" x2="#{@width}" y1="#{y(share)}" y2="#{y(share)}"/>) +
            %(<text class="time-words" x="0" y="#{y(share) + 5}">#{(share * 100).to_i} %</text>)
        end.join
      end

      def marked
        @mark && %(<line class="time-mark" x1="#{LEFT}" x2="#{@width}" y1="#{y(@mark)}" y2="#{y(@mark)}"/>)
      end

      def band
        banded = @points.select(&:band)
        return "" if banded.length < 2

        upper = banded.map { |point| "#{x(point)},#{y(point.band.last)}" }
        lower = banded.reverse.map { |point| "#{x(point)},#{y(point.band.first)}" }
        %(<polygon class="time-band" points="#{[*upper, *lower].join(" ")}"/>)
      end

      def path = %(<polyline class="time-path" points="#{@points.map { |point| "#{x(point)},#{y(point.share)}" }.join(" ")}"/>)

      def dots
        @points.map do |point|
          %(<circle class="time-dot" cx="#{x(point)}" cy="#{y(point.share)}" r="6"><title>#{escape(point.said)}</title></circle>)
        end.join
      end

      def dates
        step = (@points.length * DATE / @width.to_f).ceil
        @points.each_with_index.select { |_, place| (place % step).zero? }.map do |point, _|
          %(<text class="time-words is-date" x="#{x(point)}" y="#{HEIGHT - 6}">#{escape(@date.call(point.at))}</text>)
        end.join
      end

      # Evenly: days without lessons take no room.
      def x(point)
        room = @width - LEFT - 60
        place = @points.index(point)
        (LEFT + 30 + (@points.length < 2 ? room / 2.0 : place * room / (@points.length - 1.0))).round(1)
      end

      def y(share) = (12 + ((1 - share.to_f) * (HEIGHT - FOOT - 18))).round(1)

      def escape(words) = Rack::Utils.escape_html(words)
    end
  end
end

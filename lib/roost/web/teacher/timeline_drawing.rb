# frozen_string_literal: true

module Roost
  module Web
    # A lesson as it went, as a picture: a block each time a slide was up, with bars of the answers as they came in below it, and
    # signs of who came and left (Core::Analysis::Timeline).
    class TimelineDrawing
      WIDTH = 1200
      BLOCK = 54
      BARS = 56 # height of the tallest
      SIGNS = 22
      AXIS = 24
      HEIGHT = BLOCK + BARS + SIGNS + AXIS + 12
      # A number needs so much room.
      NARROWEST = 22
      # Minutes between two marks of the axis, so that there are not too many.
      MARKS = [1, 2, 5, 10, 15, 30, 60, 120].freeze
      MOST_MARKS = 14

      # @param timeline [Core::Analysis::Timeline]
      # @param clock [#call] says a time of day (epoch seconds)
      # @param minutes [#call] says a span (seconds)
      def initialize(timeline, clock:, minutes:)
        @timeline = timeline
        @clock = clock
        @minutes = minutes
      end

      # @return [String] SVG
      def svg
        %(<svg viewBox="0 0 #{WIDTH} #{HEIGHT}" role="img" aria-label="The slides of the lesson as long as they were up">) +
          "#{blocks}#{bars}#{signs}#{axis}</svg>"
      end

      private

      attr_reader :timeline

      def blocks
        numbers = timeline.record.lesson.stops.map(&:id).each_with_index.to_h { |id, place| [id, place + 1] }
        timeline.stretches.map do |stretch|
          x, width = span(stretch.from, stretch.to)
          number = numbers[stretch.slide.id]
          said = "#{number} #{stretch.slide.name}: #{@minutes.call(stretch.seconds)}"
          %(<g class="timeline-block#{" is-asked" if stretch.slide.prompt}"><title>#{escape(said)}</title>) +
            %(<rect x="#{x}" y="0" width="#{[width - 2, 1].max.round(1)}" height="#{BLOCK}" rx="4"/>) +
            %(#{label(x, width, number)}</g>)
        end.join
      end

      def label(left, width, number)
        %(<text x="#{(left + (width / 2) - 1).round(1)}" y="#{(BLOCK / 2) + 6}">#{number}</text>) if width >= NARROWEST
      end

      def bars
        answers = timeline.answers
        most = answers.max
        return "" if most.zero?

        each = WIDTH.to_f / answers.length
        foot = BLOCK + 8 + BARS
        answers.each_with_index.filter_map do |many, place|
          height = (many * BARS.to_f / most).round(1)
          next if many.zero?

          %(<rect class="timeline-bar" x="#{(place * each).round(1)}" y="#{foot - height}" width="#{(each - 1).round(1)}" ) +
            %(height="#{height}"><title>#{many}</title></rect>)
        end.join
      end

      def signs
        foot = BLOCK + 8 + BARS + SIGNS - 4
        timeline.passages.map do |passage|
          sign = passage.what == :came ? "▲" : "▽"
          said = "#{passage.name} #{passage.what == :came ? "came" : "left"}, #{@clock.call(passage.at)}"
          %(<text class="timeline-sign" x="#{at(passage.at)}" y="#{foot}">#{sign}<title>#{escape(said)}</title></text>)
        end.join
      end

      def axis
        minutes = timeline.lasting / 60
        step = MARKS.find { |each| minutes / each <= MOST_MARKS } || MARKS.last
        (0..(minutes / step).floor).map do |place|
          x = at(timeline.begun + (place * step * 60))
          %(<text class="timeline-axis" x="#{x}" y="#{HEIGHT - 6}">#{place * step} min</text>)
        end.join
      end

      def at(time) = (timeline.share(time) * WIDTH).round(1)

      # @return [Array(Float, Float)] where it begins, and how wide it is
      def span(from, to) = [at(from), at(to) - at(from)]

      def escape(words) = Rack::Utils.escape_html(words)
    end
  end
end

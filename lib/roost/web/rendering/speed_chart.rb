# frozen_string_literal: true

module Roost
  module Web
    # What speed does to the points of one question of a round: points over time, with the time to read drawn in, and a quick, an
    # average and a slow right answer.
    class SpeedChart
      WIDE = 320
      HIGH = 170
      LEFT = 40
      TOP = 14
      GROUND = 128
      # When they come, as shares of the time to think.
      ANSWERS = { "quick" => 1/10r, "average" => 2/5r, "slow" => 9/10r }.freeze

      # @param slide [Core::Slide]
      # @param speed [Numeric] share of the points that speed decides
      # @return [SpeedChart, nil] nil where the question isn't timed, or has no key
      def self.of(slide, speed)
        return nil unless slide.prompt&.keyed? && slide.prompt.time_limit

        new(slide.prompt.points, Core::Game::Timing.of(slide, Core::Session::Rules::CURRENT), speed.to_r)
      end

      # @param points [Integer] for a full mark
      # @param timing [Core::Game::Timing]
      def initialize(points, timing, speed)
        @points = points
        @timing = timing
        @style = Core::Game::Styles::Points.new(speed: speed)
      end

      # @return [Hash{String=>Array(Numeric, Integer)}] quick, average and slow: seconds and points
      def answers
        ANSWERS.transform_values do |share|
          seconds = @timing.reading + (share * @timing.thinking)
          [seconds, earned(seconds)]
        end
      end

      # @return [String] SVG with its numbers as its name
      def svg
        said = answers.map { |who, (seconds, points)| "#{who}, after #{seconds.round} s: #{points} points" }.join("; ")
        %(<svg class="speed-chart" viewBox="0 0 #{WIDE} #{HIGH}" role="img" aria-label="Points over time. Reading, ) +
          %(#{@timing.reading.round} s, costs nothing. A right answer that is #{said}.">#{reading}#{axis}#{line}#{dots}</svg>)
      end

      private

      def earned(seconds) = @style.earned(@points, 1r, used: seconds, timing: @timing)

      def x(seconds) = (LEFT + (seconds * (WIDE - LEFT - 14) / @timing.total)).to_f.round(1)

      def y(points) = (GROUND - (points * (GROUND - TOP) / [@points, 1].max.to_r)).to_f.round(1)

      def reading
        wide = (x(@timing.reading) - LEFT).round(1)
        %(<rect class="speed-reading" x="#{LEFT}" y="#{TOP}" width="#{wide}" height="#{GROUND - TOP}"/>) +
          %(<text class="speed-words" x="#{LEFT + 4}" y="#{GROUND - 6}">#{"reading" if wide > 54}</text>)
      end

      def axis
        ends = { 0 => "0 s", @timing.reading => "#{@timing.reading.round} s", @timing.total => "#{@timing.total.round} s" }
        times = ends.map do |at, words|
          %(<text class="speed-words" x="#{x(at)}" y="#{GROUND + 18}" text-anchor="middle">#{words}</text>)
        end
        %(<line class="speed-axis" x1="#{LEFT}" x2="#{WIDE - 14}" y1="#{GROUND}" y2="#{GROUND}"/>#{times.join}) +
          %(<text class="speed-words" x="0" y="#{y(@points) + 5}">#{@points}</text>) +
          %(<text class="speed-words" x="0" y="#{GROUND}">0</text>)
      end

      def line
        corners = [0, @timing.reading, @timing.total].map { |at| "#{x(at)},#{y(earned(at))}" }
        %(<polyline class="speed-line" points="#{corners.join(" ")}"/>)
      end

      def dots
        answers.map do |who, (seconds, points)|
          %(<circle class="speed-dot" cx="#{x(seconds)}" cy="#{y(points)}" r="4.5"/><text class="speed-words is-figure" ) +
            %(x="#{x(seconds)}" y="#{y(points) + 20}" text-anchor="middle">#{points}</text><text class="speed-words" ) +
            %(x="#{x(seconds)}" y="#{GROUND + 36}" text-anchor="middle">#{who}</text>)
        end.join
      end
    end
  end
end

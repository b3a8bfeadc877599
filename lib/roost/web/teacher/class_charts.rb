# frozen_string_literal: true

module Roost
  module Web
    # Pictures of a class or one of its students over time.
    module ClassCharts
      # @param time [Core::Analysis::ClassOverTime] with at least one week
      # @return [String] SVG
      def weeks_chart(time)
        points = time.weeks.map do |week|
          TimeChart::Point.new(at: week.at, share: week.share, said: "Week of #{date(week.at)}: #{percent(week.share)}").freeze
        end
        TimeChart.new(points, name: "Share right by week: #{points.map(&:said).join("; ")}", date: method(:date)).svg
      end

      # @param line [Array] of Core::Analysis::ClassOverTime#line_of, not empty
      # @return [String] SVG
      def student_chart(line)
        points = line.map do |session, share|
          said = "#{session.title}, #{date(session.at)}: #{percent(share)}"
          TimeChart::Point.new(at: session.at, share: share, band: session.quartiles, said: said).freeze
        end
        TimeChart.new(points, name: "Share right by session: #{points.map(&:said).join("; ")}", date: method(:date),
width: 420).svg
      end
    end
  end
end

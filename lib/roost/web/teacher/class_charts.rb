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

      # How a class did on one standard, session by session.
      # @param over [Array<Array(Store::Sessions::Row, Rational)>] not empty
      # @return [String] SVG
      def standard_chart(over, line)
        points = over.map do |row, share|
          at = row.created_at.to_f
          TimeChart::Point.new(at: at, share: share, said: "#{row.title}, #{date(at)}: #{percent(share)}").freeze
        end
        name = "Share right by session: #{points.map(&:said).join("; ")}"
        TimeChart.new(points, name: name, date: method(:date), mark: line).svg
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

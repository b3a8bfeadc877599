# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # A class over a term: who came, how much was right week by week, and who has come to have what or lost it.
      class ClassOverTime
        WEEK = 7 * 86_400
        RECENT = 4 * WEEK # seconds, within which something is gained or lost

        # One session. came:: how many of the class, nil of an assignment; share:: Rational over all, or nil; at:: epoch seconds
        # quartiles:: of students' shares, [lower, upper], or nil
        Session = Struct.new(:id, :title, :at, :came, :share, :quartiles, keyword_init: true)
        # at:: epoch seconds when the week began; share:: Rational
        Week = Struct.new(:at, :share, keyword_init: true)
        # What became of one standard or subtopic. gained, lost:: Array of student ids; having:: how many have it now
        Change = Struct.new(:name, :gained, :lost, :having, keyword_init: true)

        # @param sessions [Array<Hash>] :id, :title, :at, :self_paced
        # @param results [Array<Hash>] :student_id, :session_id, :share, :marked, as Store::Evidence#class_results
        # @param earned [Array<Array(Mastery::Earned, Array<String>)>] with what each is about
        # @param came [Hash{Integer=>Integer}] session to how many students had a seat
        # @param line [Rational] from which share on somebody has something
        # @param now [Float] epoch seconds
        def initialize(sessions:, results:, earned:, came:, now:, line: Mastery::LINE)
          @rows = sessions.sort_by { |row| [row[:at], row[:id]] }
          @results = results.select { |row| row[:share] }.group_by { |row| row[:session_id] }
          @earned = earned
          @came = came
          @line = line
          @now = now
        end

        # @return [Array<Session>] the earliest first
        def sessions
          @sessions ||= @rows.map do |row|
            of = @results.fetch(row[:id], [])
            Session.new(**row.slice(:id, :title, :at), came: (@came.fetch(row[:id], 0) unless row[:self_paced]), share: mean(of),
                                                       quartiles: quartiles(of)).freeze
          end
        end

        # @return [Array<Week>] those in which something was marked, the earliest first
        def weeks
          marked = @rows.select { |row| @results.key?(row[:id]) }
          marked.group_by { |row| ((@now - row[:at]) / WEEK).floor }.sort.reverse.map do |ago, rows|
            Week.new(at: @now - ((ago + 1) * WEEK), share: mean(rows.flat_map { |row| @results[row[:id]] })).freeze
          end
        end

        # What at least one student has gained or lost within the last weeks, what was lost by most first.
        # @return [Array<Change>]
        def changes
          before = states(@earned.select { |earned, _| at(earned) < @now - RECENT })
          now = states(@earned)
          now.keys.map(&:last).uniq.sort_by(&:downcase).map { |name| change(name, before, now) }
             .reject { |change| change.gained.empty? && change.lost.empty? }
             .sort_by { |change| [-change.lost.length, -change.gained.length] }
        end

        # How one student did beside the middle half of the class.
        # @return [Array<Array(Session, Rational)>] sessions in which something of theirs was marked
        def line_of(student_id)
          sessions.filter_map do |session|
            own = @results.fetch(session.id, []).find { |row| row[:student_id] == student_id }
            [session, own[:share]] if own
          end
        end

        private

        def mean(rows)
          marked = rows.sum { |row| row[:marked] }
          rows.sum { |row| row[:share] * row[:marked] } / marked if marked.positive?
        end

        # Quartiles by linear interpolation (type 7), of four or more.
        def quartiles(rows)
          shares = rows.map { |row| row[:share] }.sort
          return nil if shares.length < 4

          [1/4r, 3/4r].map { |part| Tallies::Spread.quantile(shares, part) }
        end

        def at(earned) = (@times ||= @rows.to_h { |row| [row[:id], row[:at]] }).fetch(earned.session_id, @now)

        # @return [Hash{Array(Integer, String)=>Symbol}] student and name to whether they have it
        def states(earned)
          grouped = earned.each_with_object({}) do |(each, names), found|
            names.each { |name| (found[[each.student_id, name]] ||= []) << each }
          end
          grouped.transform_values { |all| Mastery.cell(all, line: @line).state }
        end

        def change(name, before, now)
          students = now.keys.select { |_, about| about == name }.map(&:first)
          has = ->(states, id) { states[[id, name]] == :has }
          Change.new(name: name, gained: students.select { |id| has.call(now, id) && !has.call(before, id) },
                     lost: students.select { |id| has.call(before, id) && now[[id, name]] == :not_yet },
                     having: students.count { |id| has.call(now, id) }).freeze
        end
      end
    end
  end
end

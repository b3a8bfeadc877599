# frozen_string_literal: true

module Roost
  module Store
    # How many gave what in live sessions, where it doesn't matter who: without seats that were removed, or stood in for practice.
    class GivenCounts < Repository
      # given:: Array of an Answer, of which only what it says is known, and how many gave it
      # without:: how many had the question before them and gave nothing
      Count = Struct.new(:given, :without)

      GIVEN = <<~SQL
        SELECT answers.session_id, slide_id, attempt, value::text AS value, typed::text AS typed, late, let_count, count(*) AS many
        FROM answers JOIN seats ON seats.id = seat_id AND seats.removed_at IS NULL AND NOT seats.practice
        WHERE answers.session_id IN :ids
        GROUP BY answers.session_id, slide_id, attempt, answers.value, answers.typed, late, let_count
      SQL

      # The rule of Core::Session::Record#shown_at: sent to a device, or on the wall for a keypad.
      WITHOUT = <<~SQL.freeze
        WITH shown AS (
          SELECT session_id, seat_id, slide_id, attempt FROM deliveries WHERE session_id IN :ids
          UNION ALL
          SELECT seats.session_id, seats.id, openings.slide_id, openings.attempt
          FROM seats JOIN sessions ON sessions.id = seats.session_id JOIN openings ON openings.session_id = sessions.id
          WHERE sessions.id IN :ids AND seats.keypad IS NOT NULL
                AND (sessions.options->>'rules_version')::int >= #{Core::Session::Rules::WALL}
                AND seats.joined_at <= LEAST(openings.closed_at, openings.deadline, 'infinity')
                AND NOT EXISTS (SELECT FROM deliveries WHERE deliveries.seat_id = seats.id AND deliveries.slide_id = openings.slide_id
                                                             AND deliveries.attempt = openings.attempt)
        )
        SELECT shown.session_id, shown.slide_id, shown.attempt, count(*) AS many
        FROM shown JOIN seats ON seats.id = shown.seat_id AND seats.removed_at IS NULL AND NOT seats.practice
        LEFT JOIN answers ON answers.session_id IN :ids AND answers.seat_id = shown.seat_id AND answers.slide_id = shown.slide_id
                             AND answers.attempt = shown.attempt
        WHERE answers.id IS NULL
        GROUP BY shown.session_id, shown.slide_id, shown.attempt
      SQL
      private_constant :GIVEN, :WITHOUT

      # @param session_ids [Array<Integer>]
      # @return [Hash{Array(Integer, String, Integer)=>Count}] by session, slide and attempt; none where there is nothing to count
      def of(session_ids)
        counts = Hash.new { |all, question| all[question] = Count.new([], 0) }
        return counts if session_ids.empty?

        known = {}
        database[GIVEN, { ids: session_ids }].each { |row| counts[question(row)].given << [answer(row, known), row[:many]] }
        database[WITHOUT, { ids: session_ids }].each { |row| counts[question(row)].without = row[:many] }
        counts.tap { counts.default_proc = nil }
      end

      private

      def question(row) = row.values_at(:session_id, :slide_id, :attempt)

      # @param known [Hash{String=>Hash}] documents that were read already
      def answer(row, known)
        value, typed = row.values_at(:value, :typed).map { |text| text && (known[text] ||= JSON.parse(text).freeze) }
        Core::Session::Answer.new(slide_id: row[:slide_id], attempt: row[:attempt], late: row[:late], let_count: row[:let_count],
                                  value: value, typed: typed).freeze
      end
    end
  end
end

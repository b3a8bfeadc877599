# frozen_string_literal: true

module Roost
  module Store
    # What was earned in sessions that have ended: for whoever looks across sessions. It stands until something changes how a
    # session went, and is then written anew by the next who looks (Operations::WriteEvidence).
    class Evidence < Repository
      FRESH = 2 # seconds
      MOST_ASKED = 2_000 # sessions of one question, or of those of a page, the latest
      # What was earned on one question in one session. earned:: sum of the marks (Rational); many:: how many were marked
      Question = Struct.new(:session_id, :slide_id, :origin, :earned, :many, keyword_init: true) do
        # @return [Rational] the mean mark
        def share = earned / many
      end
      # How a session went for a seat. points:: nil where nothing was played for any
      SeatResult = Struct.new(:share, :right, :marked, :points, keyword_init: true)

      # Of sessions that have ended, those whose evidence is not of how they stand now. Answers that were on their way may come
      # for an hour; one may become visible after a younger one (seconds: FRESH), and nobody looks again sooner.
      DUE = <<~SQL.freeze
        SELECT id FROM sessions
        WHERE id IN :ids AND ended_at IS NOT NULL AND (
          evidence_no IS DISTINCT FROM results_no
          OR evidenced_at < LEAST(ended_at + make_interval(secs => #{Core::Session::Acceptance::LATEST}),
                                  clock_timestamp() - make_interval(secs => #{FRESH}))
             AND (SELECT received_at FROM answers WHERE session_id = sessions.id ORDER BY seq DESC LIMIT 1)
                 > evidenced_at - make_interval(secs => #{FRESH}))
      SQL
      # What is written of a session: tables, and the columns of their rows.
      WRITTEN = {
        evidence: "seat_id bigint, slide_id text, attempt int, origin text, mark_num int, mark_den int, weight int, " \
                  "seconds float, counts boolean, tags text[], told boolean",
        seat_results: "seat_id bigint, share text, \"right\" int, marked int, points int, waiting int, late int, told jsonb",
        question_results: "slide_id text, origin text, students int, earned text, discrimination float",
        closing_results: "slide_id text, asked text, students int, given jsonb"
      }.freeze
      # Held while evidence is written. Two numbers, as all our locks of a session: one alone is a job's.
      LOCK = 77_814
      private_constant :DUE, :WRITTEN, :LOCK

      # How it went has changed.
      def changed(session_id)
        database[:sessions].where(id: session_id).update(results_no: Sequel[:results_no] + 1)
      end

      # @param session_ids [Array<Integer>]
      # @return [Array<Integer>] ids of those whose evidence has to be written
      def due(session_ids) = session_ids.empty? ? [] : database[DUE, { ids: session_ids }].map { |row| row[:id] }

      # Puts other evidence in the place of what there was, unless somebody else has done so meanwhile.
      # @yieldreturn [Hash{Symbol=>Array<Hash>}] rows of each of WRITTEN, as the session stands now
      # @return [Boolean] whether it was written
      def renew(session_id)
        transaction do
          database.get(Sequel.function(:pg_advisory_xact_lock, LOCK, session_id))
          next false if due([session_id]).empty?

          # What changes while the rows are worked out counts on, so that they are written again.
          now = Sequel.function(:clock_timestamp)
          number, now = database[:sessions].where(id: session_id).get([:results_no, now.as(:now)])
          rows = yield
          WRITTEN.each { |table, columns| replace(table, session_id, columns, rows.fetch(table)) }
          database[:sessions].where(id: session_id).update(evidence_no: number, evidenced_at: now)
          true
        end
      end

      # @param session_ids [Array<Integer>]
      # @return [Array<Question>]
      def by_question(session_ids)
        rows = database[:evidence].where(session_id: session_ids).group(:session_id, :slide_id, :origin, :mark_den)
                                  .select(:session_id, :slide_id, :origin, :mark_den)
                                  .select_append { [sum(:mark_num).as(:earned), count.function.*.as(:many)] }
        rows.each_with_object({}) do |row, found|
          question = found[row.values_at(:session_id, :slide_id)] ||=
            Question.new(**row.slice(:session_id, :slide_id, :origin), earned: 0r, many: 0)
          question.earned += Rational(row[:earned].to_i, row[:mark_den])
          question.many += row[:many]
        end.each_value(&:freeze).values
      end

      # The same questions wherever they were asked, by sessions of a teacher and of classes whose teachers let colleagues see how
      # questions went, the latter without names and not of a few students.
      # @param origins [Array<String>]
      # @return [Hash{String=>Array<Core::Analysis::OverSessions::Asked>}]
      def over_sessions(account_id, origins)
        sessions, results = %i[sessions question_results].map { |table| Sequel[table] }
        mine = { sessions[:account_id] => account_id }
        open = Sequel[:classes][:shares_figures] & (results[:students] >= Core::Analysis::OverSessions::LEAST_OF_OTHERS)
        rows = database[:question_results].join(:sessions, id: results[:session_id]).left_join(:classes, id: sessions[:class_id])
                                          .where(results[:origin] => origins, sessions[:deleted_at] => nil)
                                          .where(Sequel.|(mine, open)).reverse(sessions[:ended_at]).limit(MOST_ASKED)
        rows.select(results[:session_id], results[:slide_id], results[:origin], :students, :earned, :discrimination,
                    Sequel.case({ mine => true }, false).as(:mine), sessions[:title], sessions[:class_name],
                    Repository.epoch(sessions[:ended_at]).as(:at)).to_hash_groups(:origin).transform_values do |all|
          all.map { |row| asked_row(row) }
        end
      end

      # How questions that count went.
      # @return [Array<Hash>] :session_id, :slide_id, :origin, :students, :share (Rational)
      def question_results(session_ids)
        rows = database[:question_results].where(session_id: session_ids)
        rows.map do |row|
          row.slice(:session_id, :slide_id, :origin, :students).merge(share: Rational(row[:earned]) / row[:students])
        end
      end

      # What classes gave to closing questions.
      # @return [Array<Hash>] :session_id, :asked, :students, :given (Array of [String, Integer])
      def closing(session_ids)
        rows = database[:closing_results].where(session_id: session_ids).order(:session_id, :slide_id)
        rows.map { |row| row.slice(:session_id, :asked, :students).merge(given: row[:given].to_a.map(&:to_a)) }
      end

      # Of what students may know.
      # @param seat_ids [Array<Integer>]
      # @return [Hash{Integer=>Hash{String=>Array<Rational>}}] seat id to tag to marks, of questions that count
      def by_tag(seat_ids)
        rows = database[:evidence].where(seat_id: seat_ids, counts: true, told: true)
                                  .select(:seat_id, :tags, :mark_num, :mark_den).all
        rows.each_with_object({}) do |row, found|
          of_seat = found[row[:seat_id]] ||= Hash.new { |all, tag| all[tag] = [] }
          row[:tags].each { |tag| of_seat[tag] << Rational(row[:mark_num], row[:mark_den]) }
        end
      end

      # What students earned on questions that count and are about something.
      # @return [Array<Hash>] :student_id, :session_id, :slide_id, :mark (Rational), :weight, :tags
      def by_student(session_ids, student_ids)
        rows = database[:evidence].join(:seats, id: :seat_id)
                                  .where(Sequel[:evidence][:session_id] => session_ids, counts: true, student_id: student_ids,
                                         removed_at: nil)
                                  .exclude(tags: Sequel.pg_array([], :text))
                                  .select(:student_id, Sequel[:evidence][:session_id], :slide_id, :mark_num, :mark_den,
                                          :weight, :tags)
        rows.map do |row|
          { **row.except(:mark_num, :mark_den), mark: Rational(row[:mark_num], row[:mark_den]), tags: row[:tags].to_a }
        end
      end

      # @return [Hash{Integer=>Integer}] session id to how many answers wait to be marked, where any do
      def waiting(session_ids)
        database[:seat_results].where(session_id: session_ids).exclude(waiting: 0).group(:session_id)
                               .select_hash(:session_id, Sequel.cast(Sequel.function(:sum, :waiting), Integer).as(:many))
      end

      # How many questions that count each session had.
      # @return [Hash{Integer=>Integer}]
      def asked(session_ids)
        database[:evidence].where(session_id: session_ids, counts: true).group(:session_id)
                           .select_hash(:session_id, Sequel.function(:count, :slide_id).distinct.as(:many))
      end

      # What students earned in sessions, as their teacher knows it.
      # @return [Array<Hash>] :student_id, :session_id, :share (Rational or nil), :right, :marked, :points, :waiting, :late
      def class_results(session_ids, student_ids)
        results = Sequel[:seat_results]
        rows = database[:seat_results].join(:seats, id: :seat_id)
                                      .where(results[:session_id] => session_ids, student_id: student_ids, removed_at: nil)
                                      .select(:student_id, results[:session_id], :share, :right, :marked, :points, :waiting,
                                              :late)
        rows.map { |row| row.merge(share: row[:share] && Rational(row[:share])) }
      end

      # @param seat_ids [Array<Integer>]
      # @param told [Boolean] only as far as the students may know
      # @return [Hash{Integer=>SeatResult}] by seat
      def seat_results(seat_ids, told: false)
        database[:seat_results].where(seat_id: seat_ids).to_h do |row|
          about = told && row[:told] ? row[:told].to_h.transform_keys(&:to_sym) : row
          share = about[:share] && Rational(about[:share])
          [row[:seat_id], SeatResult.new(**about.slice(:right, :marked, :points), share: share).freeze]
        end
      end

      # @param session_ids [Array<Integer>] the last first
      # @param student_ids [Array<Integer>]
      # @return [Hash{Integer=>Array<Rational>}] student to their shares in these sessions, the last first
      def shares(session_ids, student_ids)
        rows = database[:seat_results].join(:seats, id: :seat_id)
                                      .where(Sequel[:seats][:session_id] => session_ids, student_id: student_ids, removed_at: nil)
                                      .exclude(share: nil).select_map([Sequel[:seats][:session_id], :student_id, :share])
        rows.sort_by { |session_id, _, _| session_ids.index(session_id) }
            .group_by { |row| row[1] }.transform_values { |all| all.map { |row| Rational(row.last) } }
      end

      private

      # Of a colleague's, nothing that says whose it is.
      def asked_row(row)
        about = row[:mine] ? row : row.merge(title: nil, class_name: nil)
        Core::Analysis::OverSessions::Asked.new(**about.except(:origin), earned: Rational(row[:earned])).freeze
      end

      def replace(table, session_id, columns, rows)
        database[table].where(session_id: session_id).delete
        return if rows.empty?

        names = rows.first.keys
        given = database.from(Sequel.lit("json_to_recordset(?::json) AS given(#{columns})", JSON.generate(rows)))
        database[table].insert([:session_id, *names], given.select(Sequel.cast(session_id, :bigint), *names))
      end
    end
  end
end

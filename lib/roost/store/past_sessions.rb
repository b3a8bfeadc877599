# frozen_string_literal: true

module Roost
  module Store
    # Sessions of a teacher, a lesson, a class or a student, as they are looked for.
    class PastSessions < Sessions
      MOST_BESIDE = 100

      # @return [Array<Row>] latest first
      # @param before [Integer, nil] only those that come after this one in the list
      # @param most [Integer, nil]
      def all_of(account_id, before: nil, most: nil)
        rows = with_now.where(account_id: account_id, deleted_at: nil).reverse(:created_at, :id)
        if before
          here = database[:sessions].where(account_id: account_id, id: before).select(:created_at, :id)
          rows = rows.where(Sequel.lit("(created_at, id) < ?", here))
        end
        rows = rows.limit(most) if most
        rows.map { |row| read(row) }
      end

      # @param row [Row]
      # @param most [Integer]
      # @return [Array<Integer>] ids of the sessions of the same class and teacher that had ended before, the last first
      def before(row, most)
        return [] unless row.class_id

        database[:sessions].where(account_id: row.account_id, class_id: row.class_id, deleted_at: nil).exclude(ended_at: nil)
                           .where { created_at < row.created_at }.reverse(:created_at).limit(most).select_map(:id)
      end

      # @return [Array<Row>] a teacher's that have a Desk and have not ended, latest first
      def running_of(account_id)
        with_now.where(account_id: account_id, deleted_at: nil, self_paced: false, ended_at: nil).reverse(:created_at)
                .map { |row| read(row) }
      end

      # @return [Array<Row>] a teacher's assignments that are open, the one that closes first first
      def open_assignments(account_id, most)
        now = Sequel.function(:now)
        given = database[:assignments].where(unassigned_at: nil).where { (opens_at <= now) & (closes_at > now) }
        ids = given.join(:sessions, id: :session_id).where(account_id: account_id, deleted_at: nil)
                   .order(:closes_at, :session_id).limit(most).select_map(:session_id)
        rows = with_now.where(id: ids).map { |row| read(row) }
        rows.sort_by { |row| ids.index(row.id) }
      end

      # @return [Array<Integer>] ids of those in which a teacher has given a lesson live, and that have ended, latest first
      def ended_of_lesson(account_id, lesson_id, most)
        database[:sessions].where(account_id: account_id, lesson_id: lesson_id, deleted_at: nil, self_paced: false)
                           .exclude(ended_at: nil).reverse(:created_at).limit(most).select_map(:id)
      end

      # @param since [Float] epoch seconds
      # @return [Array<Array(Integer, Time)>] classes that a teacher taught live since then, with when each session was begun,
      #   latest first
      def begun(account_id, since:, most: 300)
        database[:sessions].where(account_id: account_id, deleted_at: nil, self_paced: false).exclude(class_id: nil)
                           .where(Sequel[:created_at] > Time.at(since)).reverse(:created_at).limit(most)
                           .select_map(%i[class_id created_at])
      end

      # @return [Array<Array(Row, Float)>] a teacher's assignments to a class that are not withdrawn, with when they close, those
      #   that close last first
      def assignments_of_class(account_id, class_id, most)
        given = database[:assignments].join(:sessions, id: :session_id)
                                      .where(account_id: account_id, class_id: class_id, deleted_at: nil, unassigned_at: nil)
        closes = given.reverse(:closes_at, :session_id).limit(most).select(:session_id, Repository.epoch(:closes_at).as(:at))
                      .as_hash(:session_id, :at)
        by_id(closes.keys).sort_by { |id, _| -closes.fetch(id) }.map { |id, row| [row, closes.fetch(id)] }
      end

      # @return [Array<Row>] a teacher's live sessions that have ended, latest first
      def ended_live(account_id, most)
        with_now.where(account_id: account_id, deleted_at: nil, self_paced: false).exclude(ended_at: nil)
                .reverse(:ended_at).limit(most).map { |row| read(row) }
      end

      # Answers that came late and count for nothing, of a teacher's sessions begun in the last days.
      # @return [Array<Array(Row, String, Integer)>] session, slide and how many, latest session first
      def late_answers(account_id, days)
        recent = database[:sessions].where(account_id: account_id, deleted_at: nil)
                                    .where(Sequel.lit("created_at > now() - make_interval(days => ?)", days))
        counts = database[:answers].where(session_id: recent.select(:id), late: true, let_count: false, final: true, typed: nil)
                                   .group_and_count(:session_id, :slide_id).order(:slide_id).all
        rows = with_now.where(id: counts.map { |each| each[:session_id] }.uniq).reverse(:created_at).map { |row| read(row) }
        rows.flat_map do |row|
          counts.select { |each| each[:session_id] == row.id }.map { |each| [row, each[:slide_id], each[:count]] }
        end
      end

      # @return [Row, nil] the latest that a teacher has given live to a class
      def latest_of_class(account_id, class_id)
        of_class = with_now.where(account_id: account_id, class_id: class_id, deleted_at: nil, self_paced: false)
        row = of_class.reverse(:created_at).first
        row && read(row)
      end

      # @return [Array<Array(Row, Integer)>] sessions that have ended in which a student had a seat, with that, latest first
      def ended_with(student_id, most)
        seats = Seats.new(database).of_student(student_id)
        rows = with_now.where(id: seats.keys, deleted_at: nil).exclude(ended_at: nil)
        rows.reverse(:ended_at).limit(most).map { |row| [read(row), seats[row[:id]]] }
      end

      # @return [Array<Array(Row, Integer)>] a teacher's in which a student has a seat, live or alone, with that, latest first
      def of_student(account_id, student_id, most)
        seats = Seats.new(database).of_student(student_id)
        with_now.where(id: seats.keys, account_id: account_id, deleted_at: nil).reverse(:created_at).limit(most)
                .map { |row| [read(row), seats[row[:id]]] }
      end

      # @return [Array<Array(Row, Integer)>] all in which a student has a seat, of any teacher, with that, latest first
      def with(student_id, most)
        seats = Seats.new(database).of_student(student_id)
        with_now.where(id: seats.keys, deleted_at: nil).reverse(:created_at).limit(most).map do |row|
          [read(row), seats[row[:id]]]
        end
      end

      # @return [Array<Array(Row, Integer)>] sessions of a lesson in which a student has a seat, with that, latest last
      def of_student_and_lesson(student_id, lesson_id)
        seats = Seats.new(database).of_student(student_id)
        with_now.where(id: seats.keys, lesson_id: lesson_id, deleted_at: nil).order(:created_at)
                .map { |row| [read(row), seats[row[:id]]] }
      end

      # Those that a teacher has given to a class, live or to be done alone, and that have ended.
      # @return [Hash{Integer=>Float}] id to when it ended (epoch seconds), the latest first
      # @param days [Integer, nil] only of the last so many days
      def ended_of_class(account_id, class_id, most, days: nil)
        ended = database[:sessions].where(account_id: account_id, class_id: class_id, deleted_at: nil).exclude(ended_at: nil)
        ended = ended.where(Sequel.lit("ended_at > clock_timestamp() - make_interval(days => ?)", days)) if days
        ended.reverse(:ended_at).limit(most).select(:id, Repository.epoch(:ended_at).as(:ended_at)).as_hash(:id, :ended_at)
      end

      # @return [Array<Row>] those deleted that are not purged yet, latest first
      def deleted_lately(account_id)
        with_now.where(account_id: account_id)
                .where { deleted_at > Sequel.lit("now() - make_interval(days => ?)", Roost.settings.purge_days) }
                .reverse(:deleted_at).map { |row| read(row) }
      end

      # What sessions may have in common, so that the same questions are asked in them.
      IN_COMMON = %i[lesson_id class_id account_id].freeze

      # Sessions in which the same questions may still be asked, or will be: those of the same lesson, class or teacher that have
      # not ended.
      # @param rows [Array<Row>]
      # @return [Hash{Integer=>Array<Row>}] id of each of these to the others, the latest first, at most MOST_BESIDE
      def beside(rows)
        same = IN_COMMON.to_h { |name| [name, rows.map { |row| row[name] }.compact.uniq] }.reject { |_, ids| ids.empty? }
        open = with_now.where(ended_at: nil, deleted_at: nil).where(Sequel.|(*same.map { |pair| [pair].to_h }))
                       .reverse(:created_at).limit(MOST_BESIDE * same.values.map(&:length).sum).map { |other| read(other) }
        rows.to_h { |row| [row.id, open.select { |other| beside?(row, other) }.first(MOST_BESIDE)] }
      end

      # @param ids [Array<Integer>]
      # @return [Hash{Integer=>Row}] by id
      def by_id(ids) = with_now.where(id: ids).to_h { |row| [row[:id], read(row)] }

      private

      def beside?(row, other) = other.id != row.id && IN_COMMON.any? { |name| row[name] && row[name] == other[name] }
    end
  end
end

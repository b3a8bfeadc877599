# frozen_string_literal: true

module Roost
  module Operations
    # What a teacher finds first: what runs, what is open until when, what waits for her, what was taught last, and what she
    # may do next.
    class Today
      # running:: sessions with a Desk
      # open::    assignments that are open, the one that closes first first
      # waiting:: what asks for her
      # past::    sessions taught last, with how many students were in them
      # lessons:: those she may start, changed last
      # klass::   the class she is likely to teach next, nil without one
      # ways::    ways to begin that she has not used yet
      View = Struct.new(:running, :open, :waiting, :past, :lessons, :klass, :ways, keyword_init: true)
      # An assignment: opened and handed_in are counts of students, of so many as are in its class (nil for anybody).
      Open = Struct.new(:row, :closes_at, :handed_in, :opened, :of, keyword_init: true)
      # what:: :cards or :late
      Waiting = Struct.new(:what, :many, :row, :slide_id, keyword_init: true)

      WAYS = %w[try file starters].freeze
      MOST = 5
      MOST_OPEN = 20
      LATE_DAYS = 7 # that late answers are told of

      def call(account_id)
        sessions = Store::PastSessions.new
        now = sessions.now
        classes = Store::Classes.new.all(account_id)
        open = open_ones(account_id, classes)
        likely = LikelyClass.new.call(account_id, classes, now)
        View.new(running: sessions.running_of(account_id).first(MOST), open: open, waiting: waiting(account_id, open),
                 past: past(account_id), lessons: Store::Catalogue.new.find(account_id).first(MOST),
                 klass: classes.find { |each| each.id == likely }, ways: WAYS - Store::Accounts.new.begun(account_id))
      end

      private

      def open_ones(account_id, classes)
        rows = Store::PastSessions.new.open_assignments(account_id, MOST_OPEN)
        ids = rows.map(&:id)
        opened = Store::Seats.new.count(ids)
        done = Store::Sittings.new.handed_in(ids)
        given = Store::Assignments.new.of(ids)
        rows.map do |row|
          Open.new(row: row, closes_at: given.fetch(row.id).closes_at, opened: opened.fetch(row.id, 0),
                   handed_in: done.fetch(row.id, 0), of: classes.find { |each| each.id == row.class_id }&.students)
        end
      end

      def waiting(account_id, open)
        cards = open.map { |each| Waiting.new(what: :cards, many: WaitingCards.new.call(each.row).values.sum, row: each.row) }
        cards.select { |each| each.many.positive? } + late(account_id)
      end

      # Only a question with a key has marks to decide on.
      def late(account_id)
        Store::PastSessions.new.late_answers(account_id, LATE_DAYS).filter_map do |row, slide_id, count|
          keyed = Store::Sessions.new.lesson_of(row).slide(slide_id)&.prompt&.keyed?
          Waiting.new(what: :late, many: count, row: row, slide_id: slide_id) if keyed
        end
      end

      def past(account_id)
        rows = Store::PastSessions.new.ended_live(account_id, MOST)
        counts = Store::Seats.new.count(rows.map(&:id))
        rows.map { |row| [row, counts.fetch(row.id, 0)] }
      end
    end
  end
end

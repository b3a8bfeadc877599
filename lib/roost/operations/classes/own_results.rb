# frozen_string_literal: true

module Roost
  module Operations
    # What a student has taken part in so far, and how it went: for their own page.
    class OwnResults
      MOST = 20
      # Marks of a subtopic that are needed to say anything of it (rules.md, who has it).
      ENOUGH = 3

      # share:: mean mark, or nil; right, marked:: how many questions; copy:: whether there is a copy to look at
      # points:: in its rounds, nil where none was played
      Past = Struct.new(:row, :share, :right, :marked, :points, :copy, keyword_init: true)
      # share:: mean mark over all questions about it; many:: how many there were
      # lately, before:: mean marks of the last session in which it was asked, and of those before; nil where it was one
      Topic = Struct.new(:name, :share, :many, :before, :lately, keyword_init: true) do
        # @param sessions [Array<Array<Rational>>] marks of each session that asked about it, the latest first
        def self.of(name, sessions)
          mean = ->(marks) { marks.sum / marks.length if marks.any? }
          new(name: name, share: mean.call(sessions.flatten), many: sessions.sum(&:length), lately: mean.call(sessions.first),
              before: mean.call(sessions.drop(1).flatten)).freeze
        end

        # Whether they know it better than they did.
        def growing? = !before.nil? && lately > before
      end
      # What a teacher wrote about one answer. slide:: what was asked
      Comment = Struct.new(:row, :slide, :text, keyword_init: true)
      # A mark that a teacher gave by hand and lets them see. mark:: Core::Grading::HandMark
      Mark = Struct.new(:row, :slide, :mark, keyword_init: true)
      # All that was marked in a subject. share:: mean mark; many:: of how many questions
      Subject = Struct.new(:name, :share, :many, keyword_init: true)
      Results = Struct.new(:past, :topics, :subjects, :comments, :marks, keyword_init: true)

      # @param student [Core::Student]
      # @return [Results] the latest sessions and comments first, topics with the surest first
      def call(student)
        ended = Store::PastSessions.new.ended_with(student.id, MOST)
        still_open = StillOpen.new(ended.map(&:first))
        told = ended.select { |row, seat_id| OwnCopy.told?(row, seat_id, still_open: still_open) }.map(&:last)
        WriteEvidence.new.call(ended.map { |row, _| row.id })
        evidence = Store::Evidence.new
        results = evidence.seat_results(told, told: true)
        live = ended.reject { |row, _| row.self_paced }
        Results.new(past: live.map { |row, seat_id| past(row, seat_id, results[seat_id]) }, comments: comments(student),
                    subjects: subjects(ended, results), marks: marks(ended.to_h(&:reverse).slice(*told)),
                    topics: topics(evidence.by_tag(told).values_at(*told).compact)).freeze
      end

      private

      # @param rows [Hash{Integer=>Store::Sessions::Row}] by seat
      def marks(rows)
        Store::HandMarks.new.seen(rows.keys).first(MOST).filter_map do |seat_id, slide_id, mark|
          slide = Store::Sessions.new.lesson_of(rows.fetch(seat_id)).slide(slide_id)
          slide && Mark.new(row: rows.fetch(seat_id), slide: slide, mark: mark).freeze
        end
      end

      # @param results [Hash{Integer=>Store::Evidence::SeatResult}] of seats that were told
      def subjects(ended, results)
        known = ended.filter_map { |row, seat_id| (result = results[seat_id])&.share && [subject(row), result] }
        all = known.reject { |name, _| name.empty? }.group_by(&:first).map do |name, of_subject|
          many = of_subject.sum { |_, result| result.marked }
          Subject.new(name: name, many: many, share: of_subject.sum { |_, result| result.share * result.marked } / many).freeze
        end
        all.select { |subject| subject.many >= ENOUGH }.sort_by(&:name)
      end

      def subject(row) = Store::Sessions.new.lesson_of(row).details.subject.to_s

      # Of sessions of which they were told how it went, and of questions whose marks by hand don't wait.
      def comments(student)
        seats = Store::Seats.new.of_student(student.id)
        all = Store::Comments.new.of(seats.values, told: true)
        written = all.flat_map { |key, each| each.texts.values.map { |text| [key, text] } }.first(MOST)
        found = Store::PastSessions.new.by_id(seats.invert.values_at(*written.map { |(seat_id, _), _| seat_id }.uniq))
        still_open = StillOpen.new(found.values)
        rows = seats.slice(*found.keys).to_h { |session_id, seat_id| [seat_id, found.fetch(session_id)] }
        told = rows.select { |seat_id, row| OwnCopy.told?(row, seat_id, still_open: still_open) }
        written.select { |(seat_id, _), _| told.key?(seat_id) }.map { |key, text| comment(told, *key, text) }
      end

      def comment(rows, seat_id, slide_id, text)
        row = rows.fetch(seat_id)
        Comment.new(row: row, slide: Store::Sessions.new.lesson_of(row).slide(slide_id), text: text).freeze
      end

      # @param result [Store::Evidence::SeatResult, nil] nil where they were not told how it went
      def past(row, seat_id, result)
        copy = OwnCopy.allowed?(row, seat_id)
        Past.new(row: row, copy: copy, marked: 0, **result.to_h).freeze
      end

      # @param sessions [Array<Hash{String=>Array<Rational>}>] subtopic or standard to marks, the latest session first
      # @return [Array<Topic>]
      def topics(sessions)
        names = sessions.flat_map(&:keys).uniq
        all = names.map { |name| Topic.of(name, sessions.filter_map { |marks| marks[name] if marks.key?(name) }) }
        all.select { |topic| topic.many >= ENOUGH }.sort_by { |topic| [-topic.share, topic.name] }
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Operations
    # Writes what was earned in sessions that have ended (Store::Evidence), where what stands there is not how they stand now.
    class WriteEvidence
      SAID = 300 # characters of one answer to a closing question
      MOST_SAID = 60

      # @param session_ids [Array<Integer>]
      # @return [Array<Integer>] of them, those that were written
      def call(session_ids)
        evidence = Store::Evidence.new
        evidence.due(session_ids).select { |id| evidence.renew(id) { earned(Store::Sessions.new.find(id)) } }
      end

      private

      # @param row [Store::Sessions::Row]
      # @return [Hash{Symbol=>Array<Hash>}] see Store::Evidence#renew
      def earned(row)
        # Practice students would keep a question from having been passed over.
        seats = Store::Seats.new.of(row.id).reject(&:practice)
        record = Store::Records.new.of(row, seats: seats, roll: [])
        results = Core::Analysis::Results.new(record)
        released = record.hand.any? ? Store::HandMarks.new.released(row.id) : []
        told = record.hand.any? ? as_told(row, record) : {}
        { evidence: results.slides.flat_map { |slide| rows(record, slide, results.lines, told: released.include?(slide.id)) },
          seat_results: results.lines.map { |line| { **whose(line), **seat(line, results), told: told[line.seat.id] } },
          question_results: results.items.all.map { |item| question(item) },
          closing_results: results.slides.select { |slide| slide.prompt.closing? }.filter_map { |slide| closing(record, slide) } }
      end

      # What was said how often, without names.
      def closing(record, slide)
        given = record.given(slide.id).values.map { |answer| slide.prompt.plain(answer.value).to_s[0, SAID] }.reject(&:empty?)
        return nil if given.empty?

        said = given.tally.sort_by { |words, many| [-many, words] }.first(MOST_SAID)
        { slide_id: slide.id, asked: slide.name, students: given.length, given: said }
      end

      def question(item)
        { slide_id: item.slide.id, origin: item.slide.prompt.origin, students: item.students,
          earned: (item.facility * item.students).to_s, discrimination: item.discrimination }
      end

      # Whose it is, and how much of it waits to be marked, or came late and doesn't count.
      def whose(line)
        statuses = line.outcomes.each_value.map(&:status)
        { seat_id: line.seat.id, waiting: statuses.count(:to_mark), late: statuses.count(:late) }
      end

      # As far as students may know.
      # @return [Hash{Integer=>Hash}] by seat
      def as_told(row, record)
        known = { seats: record.seats, roll: [], answers: record.answers, shown: record.shown, sat: record.sat }
        results = Core::Analysis::Results.new(Store::Records.new.for_students(row, **known))
        results.lines.to_h { |line| [line.seat.id, seat(line, results)] }
      end

      # What was never before a student says nothing of what they can do.
      # @param told [Boolean] whether students see what was marked by hand
      def rows(record, slide, lines, told:)
        prompt = slide.prompt
        about = { slide_id: slide.id, origin: prompt.origin, weight: prompt.points || 1, counts: prompt.counts?,
                  tags: prompt.tags }
        seconds = record.seconds(slide.id)
        lines.filter_map do |line|
          mark = line.outcomes[slide.id].mark
          next unless mark

          { seat_id: line.seat.id, attempt: record.attempt(slide.id, line.seat.id), mark_num: mark.numerator,
            mark_den: mark.denominator, seconds: seconds[line.seat.id]&.to_f,
            told: told || !record.hand_mark(slide.id, line.seat.id), **about }
        end
      end

      def seat(line, results)
        { share: line.share&.to_s, right: line.right, marked: line.marked, points: (line.points if results.game?) }
      end
    end
  end
end

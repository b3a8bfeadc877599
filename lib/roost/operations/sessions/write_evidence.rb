# frozen_string_literal: true

module Roost
  module Operations
    # Writes what was earned in sessions that have ended (Store::Evidence), where what stands there is not how they stand now.
    class WriteEvidence
      # @param session_ids [Array<Integer>]
      # @return [Array<Integer>] of them, those that were written
      def call(session_ids)
        evidence = Store::Evidence.new
        evidence.due(session_ids).select { |id| evidence.renew(id) { earned(Store::Sessions.new.find(id)) } }
      end

      private

      # @param row [Store::Sessions::Row]
      # @return [Array(Array<Hash>, Array<Hash>)] of questions and of seats
      def earned(row)
        # Practice students would keep a question from having been passed over.
        seats = Store::Seats.new.of(row.id).reject(&:practice)
        results = Core::Analysis::Results.new(Store::Records.new.of(row, seats: seats, roll: []))
        lines = results.lines
        [results.slides.flat_map { |slide| rows(results.record, slide, lines) }, lines.map { |line| seat(line, results) }]
      end

      # What was never before a student says nothing of what they can do.
      def rows(record, slide, lines)
        prompt = slide.prompt
        about = { slide_id: slide.id, origin: prompt.origin, weight: prompt.points || 1, counts: prompt.counts?,
                  tags: prompt.subtopics + prompt.standards }
        seconds = record.seconds(slide.id)
        lines.filter_map do |line|
          mark = line.outcomes[slide.id].mark
          next unless mark

          { seat_id: line.seat.id, attempt: record.attempt(slide.id, line.seat.id), mark_num: mark.numerator,
            mark_den: mark.denominator, seconds: seconds[line.seat.id]&.to_f, **about }
        end
      end

      def seat(line, results)
        { seat_id: line.seat.id, share: line.share&.to_s, right: line.right, marked: line.marked,
          points: (line.points if results.game?) }
      end
    end
  end
end

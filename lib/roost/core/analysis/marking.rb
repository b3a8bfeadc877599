# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Answers to one question as a teacher marks them: those alike together, what is not marked yet first, the largest group in
      # front.
      class Marking
        # said:: the answer in words, "" of what has none; seats:: Array of Seat, who gave it; marks:: Hash of seat id to the mark
        # that each has by hand; value:: of the first, as it was given
        Group = Struct.new(:said, :seats, :marks, :value, keyword_init: true) do
          # @return [Integer] how many wait
          def waiting = seats.length - marks.length

          # @return [Rational, nil] the mark that all of them have
          def mark = (marks.values.first if waiting.zero? && marks.values.uniq.one?)
        end

        # @param record [Session::Record]
        # @param slide [Slide] with a prompt
        def initialize(record, slide)
          @record = record
          @slide = slide
        end

        # @param order [Integer, nil] one of the orders in which those of a size come; nil as they came in
        # @return [Array<Group>]
        def groups(order: nil)
          all = alike.map { |seats| group(seats) }
          all = all.shuffle(random: Random.new(order)) if order
          ranked = all.each_with_index.sort_by do |group, place|
            [group.waiting.positive? ? 0 : 1, -group.seats.length, place]
          end
          ranked.map(&:first)
        end

        # Who gave something that can be marked.
        # @return [Hash{Integer=>Session::Answer}] by seat
        def given = @given ||= @record.given(@slide.id).reject { |_, answer| @slide.prompt.blank_answer?(answer.value) }

        # By what answers are told apart: spaces, capitals and full stops are none.
        # @return [String]
        def self.key(said) = said.downcase.gsub(/[[:space:]]+/, " ").gsub(/\A[[:punct:] ]+|[[:punct:] ]+\z/, "")

        private

        def said(seat_id) = @slide.prompt.answered(given[seat_id].value)

        # What can't be said in words is like nothing else.
        def alike
          @record.in_order(@record.seats.select { |seat| given.key?(seat.id) })
                 .group_by { |seat| Marking.key(said(seat.id)).then { |key| key.empty? ? seat.id : key } }.values
        end

        def group(seats)
          marks = seats.to_h { |seat| [seat.id, @record.hand_mark(@slide.id, seat.id)] }.compact
          first = seats.first.id
          Group.new(said: said(first), seats: seats, marks: marks, value: given[first].value).freeze
        end
      end
    end
  end
end

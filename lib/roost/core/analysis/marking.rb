# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Answers to one question as a teacher marks them: those alike together (texts also where they are similar, rules.md,
      # tallies), what is not marked yet first, the largest group in front.
      class Marking
        # said:: the answer in words, "" of what has none; seats:: Array of Seat, who gave it; marks:: Hash of seat id to the
        # Grading::HandMark that each has; value:: of the first, as it was given; answers:: Hash of seat id to what each said
        Group = Struct.new(:said, :seats, :marks, :value, :answers, keyword_init: true) do
          # What else stands in it: each other wording once.
          # @return [Array<String>]
          def others = answers.values.uniq { |text| Marking.key(text) }.reject { |text| Marking.key(text) == Marking.key(said) }

          # @return [Integer] how many wait
          def waiting = seats.length - marks.length

          # @return [Grading::HandMark, nil] the mark that all of them have
          def mark = (marks.values.first if waiting.zero? && marks.values.uniq.one?)
        end

        # @param record [Session::Record]
        # @param slide [Slide] with a prompt
        # @param marks [Hash{Array(Integer, Integer)=>Grading::HandMark}] seat and attempt to what was given
        def initialize(record, slide, marks: {})
          @record = record
          @slide = slide
          @marks = marks
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

        # One answer that two have marked or one of them. said:: in words; one, other:: Grading::HandMark or nil
        Both = Struct.new(:seat, :said, :one, :other, keyword_init: true) do
          def differ? = one && other && one.mark != other.mark
        end

        # @param ours [Hash{Array(Integer, Integer)=>Grading::HandMark}] seat and attempt to mark; theirs:: likewise
        # @return [Array<Both>] those that differ first
        def beside(ours, theirs)
          all = @record.in_order(@record.seats.select { |seat| given.key?(seat.id) }).map do |seat|
            key = [seat.id, @record.attempt(@slide.id, seat.id)]
            Both.new(seat: seat, said: said(seat.id), one: ours[key], other: theirs[key]).freeze
          end
          marked = all.select { |both| both.one || both.other }
          marked.each_with_index.sort_by { |both, place| [both.differ? ? 0 : 1, place] }.map(&:first)
        end

        # How far both agree: on each criterion of the rubric, or on the mark in quarters.
        # @param both [Array<Both>]
        # @return [Array<Array(String, Agreement)>] with the name of the criterion, "" of the mark
        def agreements(both)
          marked = both.select { |each| each.one && each.other }
          rubric = @slide.prompt.rubric
          return [["", quarters(marked)]] unless rubric && marked.all? { |each| each.one.levels && each.other.levels }

          rubric.criteria.each_with_index.map do |criterion, at|
            pairs = marked.map { |each| [each.one.levels[at], each.other.levels[at]] }
            [criterion.name, Agreement.new(pairs, levels: criterion.levels.length)]
          end
        end

        # By what answers are told apart: spaces, capitals and full stops are none.
        # @return [String]
        def self.key(said) = said.downcase.gsub(/[[:space:]]+/, " ").gsub(/\A[[:punct:] ]+|[[:punct:] ]+\z/, "")

        private

        def said(seat_id) = @slide.prompt.answered(given[seat_id].value)

        def quarters(marked)
          pairs = marked.map { |each| [each.one, each.other].map { |mark| (mark.mark * 4).round } }
          Agreement.new(pairs, levels: 5)
        end

        # What can't be said in words is like nothing else.
        def alike
          same = @record.in_order(@record.seats.select { |seat| given.key?(seat.id) })
                        .group_by { |seat| Marking.key(said(seat.id)).then { |key| key.empty? ? seat.id : key } }
          return same.values if @slide.prompt.keyed?

          leads = similar(same.keys.grep(String))
          same.group_by { |key, _| leads.fetch(key, key) }.values.map { |joined| joined.flat_map(&:last) }
        end

        # @return [Hash{String=>String}] each text to the one that stands for those like it
        def similar(texts)
          groups = Tallies::Grouping.new(texts).groups
          groups.flat_map { |group| group.texts.map { |text| [text, group.lead] } }.to_h
        end

        def group(seats)
          marks = seats.to_h { |seat| [seat.id, @marks[[seat.id, @record.attempt(@slide.id, seat.id)]]] }.compact
          answers = seats.to_h { |seat| [seat.id, said(seat.id)] }
          first = answers.key(answers.values.tally.max_by(&:last).first)
          Group.new(said: answers[first], seats: seats, marks: marks, value: given[first].value, answers: answers).freeze
        end
      end
    end
  end
end

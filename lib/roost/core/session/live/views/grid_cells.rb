# frozen_string_literal: true

module Roost
  module Core
    module Session
      module Views
        # The cells of a grid, seat by seat. They are worked out anew only where something has come since the moment before,
        # so that an answer costs as much in a long quiz as in a short one.
        class GridCells
          # cells:: as Grid::Row has them; answered_at:: when something was last given (epoch seconds), or nil
          # answered, asked:: how many of the cells
          Seat = Struct.new(:sitting, :cells, :answered_at, :answered, :asked, keyword_init: true)
          ANSWERED = %i[right part wrong given].freeze

          # @param moment [Moment] at a quiz
          # @param questions [Array<Slide>]
          # @return [GridCells] those of the moment before, brought up to date, where there is one
          def self.of(moment, questions)
            kept = moment.record.memory.views
            kept[:grid] = new(questions) unless kept[:grid]&.questions == questions
            kept[:grid].tap { |cells| cells.update(moment) }
          end

          attr_reader :questions

          def initialize(questions)
            @questions = questions
            @ids = questions.map(&:id)
            @answers = {}
            @seats = {}
          end

          # @return [Seat]
          def [](seat_id) = @seats.fetch(seat_id)

          # @return [Float] of all that each is asked, or would be, what is answered, 0 to 1
          def share
            answered, asked = %i[answered asked].map { |name| @seats.sum { |_, seat| seat[name] } }
            asked.zero? ? 0.0 : answered / asked.to_f
          end

          def update(moment)
            aside = @ids.select { |id| moment.record.set_aside?(id) } # nothing marks these
            @seats = {} unless aside == @aside
            @aside = aside
            changed = changed(moment.record)
            @seats = moment.seats.to_h do |seat|
              known = @seats[seat.id]
              sitting = moment.sittings[seat.id]
              known = nil unless known&.sitting.equal?(sitting) || known&.sitting == sitting
              [seat.id, brought_up_to_date(moment.record, seat.id, sitting, known, changed[seat.id])]
            end
          end

          private

          # Where a seat gave something, or what it gave counts no more, as when all are asked again.
          # @return [Hash{Integer=>Array<Integer>}] seat id to places of questions
          def changed(record)
            @ids.each_with_index.with_object({}) do |(id, place), changed|
              before = @answers.fetch(id, {})
              now = @answers[id] = record.all_answers(id)
              next if now.equal?(before)

              others = { **before, **now }.each_key.reject { |seat_id| now[seat_id].equal?(before[seat_id]) }
              others.each { |seat_id| (changed[seat_id] ||= []) << place }
            end
          end

          # @param known [Seat, nil] of the moment before, in the same sitting
          # @param changed [Array<Integer>, nil] places of its cells
          # @return [Seat]
          def brought_up_to_date(record, seat_id, sitting, known, changed)
            return known if known && changed.nil?
            return seat(record, seat_id, sitting) unless known && changed.all? { |place| @answers[@ids[place]].key?(seat_id) }

            cells = known.cells.dup
            changed.each { |place| cells[place] = cell(record, @ids[place], seat_id, sitting) }
            made(sitting, cells, [known.answered_at, *changed.map { |place| @answers[@ids[place]][seat_id].received_at }])
          end

          def seat(record, seat_id, sitting)
            cells = @ids.map { |id| cell(record, id, seat_id, sitting) }
            made(sitting, cells, @ids.map { |id| @answers[id][seat_id]&.received_at })
          end

          def made(sitting, cells, times)
            Seat.new(sitting: sitting, cells: cells.freeze, answered_at: times.compact.max,
                     answered: cells.count { |cell| ANSWERED.include?(cell) },
                     asked: cells.count { |cell| cell != :left_out }).freeze
          end

          def cell(record, slide_id, seat_id, sitting)
            return :left_out if sitting && !sitting.slides.include?(slide_id)

            answer = record.given(slide_id)[seat_id]
            return Outcome.status(record.mark(answer)) if answer
            return :unread if record.unread(slide_id).key?(seat_id)

            sitting&.seen&.include?(slide_id) ? :seen : :waiting
          end
        end
      end
    end
  end
end

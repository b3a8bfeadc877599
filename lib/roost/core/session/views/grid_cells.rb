# frozen_string_literal: true

require "set"

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
            memory = moment.record.memory
            memory[:grid] = new(questions) unless memory[:grid]&.questions == questions
            memory[:grid].tap { |cells| cells.update(moment) }
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
            changed = changed_seats(moment.record)
            @seats = moment.seats.to_h do |seat|
              known = @seats[seat.id]
              sitting = moment.sittings[seat.id]
              same = known && !changed.include?(seat.id) && (known.sitting.equal?(sitting) || known.sitting == sitting)
              [seat.id, same ? known : seat(moment, seat.id, sitting)]
            end
          end

          private

          # @return [Set<Integer>] ids of those that gave something, or whose answer counts no more, as when all are asked again
          def changed_seats(record)
            @ids.each_with_object(Set.new) do |id, changed|
              before = @answers.fetch(id, {})
              now = @answers[id] = record.all_answers(id)
              next if now.equal?(before)

              { **before, **now }.each_key { |seat_id| changed << seat_id unless now[seat_id].equal?(before[seat_id]) }
            end
          end

          def seat(moment, seat_id, sitting)
            times = @ids.filter_map { |id| moment.answer(id, seat_id)&.received_at }
            cells = @ids.map { |id| cell(moment, id, seat_id, sitting) }
            Seat.new(sitting: sitting, cells: cells.freeze, answered_at: times.max,
                     answered: cells.count { |cell| ANSWERED.include?(cell) },
                     asked: cells.count { |cell| cell != :left_out }).freeze
          end

          def cell(moment, slide_id, seat_id, sitting)
            return :left_out if sitting && !sitting.slides.include?(slide_id)

            answer = moment.given(slide_id)[seat_id]
            return Outcome.status(moment.record.mark(answer)) if answer
            return :unread if moment.unread(slide_id).key?(seat_id)

            sitting&.seen&.include?(slide_id) ? :seen : :waiting
          end
        end
      end
    end
  end
end

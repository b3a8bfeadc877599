# frozen_string_literal: true

module Roost
  module Core
    module Session
      module Views
        # A quiz at the Desk: who has got how far, student by question.
        #
        # questions:: [Slide]; rows:: [Row], at most MOST_LISTED; begun, done:: how many have; share:: of all that could be
        # answered, what is, 0 to 1; ends_at:: when it closes for all (epoch seconds), or nil
        # waiting:: Hash of slide id to how much of what was given waits for the teacher, where anything does
        Grid = Struct.new(:questions, :rows, :begun, :done, :share, :ends_at, :waiting, keyword_init: true)

        # The rows, put together from a moment.
        class Grid
          # Seconds without anything new after which somebody may be stuck.
          STUCK = 180

          # cells:: one a question: :right, :part, :wrong, :given (answered, nothing marks it), :unread, :seen, :waiting or
          # :left_out (not drawn for this student); at:: which of them the student is at, from 0, or nil
          # state:: :waiting, :at_work, :handed_in or :over; stuck_since:: epoch seconds, or nil; ends_at:: of this student
          Row = Struct.new(:seat_id, :name, :here, :state, :cells, :at, :stuck_since, :ends_at, keyword_init: true)

          class << self
            # @param moment [Moment] at a quiz
            # @return [Grid]
            def of(moment)
              questions = moment.lesson.slides_of(moment.quiz).select(&:prompt)
              cells = GridCells.of(moment, questions)
              rows = moment.seat_statuses.first(MOST_LISTED).map { |bird| row(moment, questions, bird, cells[bird.seat_id]) }
              sittings = moment.seats.filter_map { |seat| moment.sittings[seat.id] }
              done = sittings.count { |each| each.over?(moment.now) }
              new(questions: questions, rows: rows, begun: sittings.length, done: done, share: cells.share,
                  ends_at: moment.state.opening&.deadline, waiting: Grid.waiting(moment.record, questions)).freeze
            end

            # @param record [Record]
            # @param questions [Array<Slide>]
            # @return [Hash{String=>Integer}] slide id to how much waits for the teacher, where anything does
            def waiting(record, questions)
              boards = questions.select { |slide| slide.prompt.board? }
              boards.to_h { |slide| [slide.id, slide.prompt.waiting(record.tally(slide.id))] }.reject { |_, many| many.zero? }
            end

            private

            def row(moment, questions, bird, seat)
              sitting = seat.sitting
              state = state(sitting, moment)
              Row.new(seat_id: bird.seat_id, name: bird.name, here: bird.here, state: state, cells: seat.cells,
                      at: (questions.index { |slide| slide.id == sitting.slide_id } if state == :at_work),
                      stuck_since: (stuck_since(moment, seat) if state == :at_work && bird.here),
                      ends_at: (sitting.deadline if state == :at_work)).freeze
            end

            def state(sitting, moment)
              return :waiting unless sitting
              return :handed_in if sitting.handed_in_at

              sitting.over?(moment.now) ? :over : :at_work
            end

            # The last that was heard of a student who is here, where that is long ago.
            def stuck_since(moment, seat)
              last = [seat.sitting.moved_at, seat.answered_at].compact.max
              last if moment.now - last > STUCK
            end
          end
        end
      end
    end
  end
end

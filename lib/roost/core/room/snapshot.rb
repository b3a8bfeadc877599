# frozen_string_literal: true

require "digest"

module Roost
  module Core
    module Room
      # A session at one moment: everything a view is made of.
      #
      # seats::   [Seat] in order of joining
      # answers:: Hash of slide id to Hash of seat id to Answer
      # shown::   Hash of slide id to Hash of seat id to the time (epoch seconds) when
      #           the open prompt was sent to that seat's device
      # seed::    what the orders at seats come from, known to the server only
      # tallies:: Hash of slide id to what was tallied of it so far, here or the moment before
      class Snapshot
        # here:: also when the state is :answered, of one who has left since
        Bird = Struct.new(:seat_id, :name, :state, :here, :practice, keyword_init: true)

        # How many orders the options of a shuffled question are given out in: enough that
        # neighbours differ, few enough to render.
        ORDERS = 12

        attr_reader :id, :title, :code, :lesson, :options, :state, :version, :seats, :answers, :shown, :tallies

        # @param before [Hash] the tallies of the moment before, so that a chart can stay where it was;
        #   those of this moment are put into it
        def initialize(id:, title:, code:, lesson:, options:, state:, version:, seats:, answers:, shown:, seed: "", before: {})
          @id = id
          @title = title
          @code = code
          @lesson = lesson
          @options = options
          @state = state
          @version = version
          @seats = seats
          @answers = answers
          @shown = shown
          @seed = seed
          @given = {}
          @tallies = before
          @fresh = {}
        end

        def slide = lesson.slide(state.slide_id)

        # Position among the slides the class gets, from 0.
        def place = lesson.class_slides.index { |slide| slide.id == state.slide_id }

        # Whether an answer handed in may be changed: as the question says, else the session.
        def may_change
          own = slide&.prompt&.may_change
          own.nil? ? options.may_change : own
        end

        # @return [Answer, nil]
        def answer(slide_id, seat_id) = answers.fetch(slide_id, NONE)[seat_id]

        # Answers with something in them, by seat id, in the order of the seats.
        def given(slide_id = state.slide_id)
          @given[slide_id] ||= begin
            prompt = lesson.slide(slide_id)&.prompt
            here = prompt ? answers.fetch(slide_id, NONE) : NONE
            seats.each_with_object({}) do |seat, given|
              answer = here[seat.id]
              given[seat.id] = answer if answer&.readable? && !prompt.blank_answer?(answer.value)
            end
          end
        end

        # What was typed and can't be read as an answer, by seat id.
        # @return [Hash{Integer=>Answer}]
        def unread(slide_id = state.slide_id)
          (@unread ||= {})[slide_id] ||= answers.fetch(slide_id, NONE).reject { |_, answer| answer.readable? }
        end

        # Whether a slide's question was only leafed through: nobody answered, and nobody could have.
        # It counts for nobody, as if it had never been asked.
        def passed_over?(slide_id)
          run = state.runs[slide_id]
          return false unless run&.passed?(lesson.slide(slide_id).words)

          given(slide_id).empty? && unread(slide_id).empty?
        end

        # What the class gave on a slide, in full.
        def tally(slide_id = state.slide_id)
          @fresh[slide_id] ||= tallies[slide_id] = begin
            values = given(slide_id).transform_values(&:value)
            lesson.slide(slide_id).prompt.gathered(values, names: names, curation: state.curation(slide_id),
                                                           before: tallies[slide_id])
          end
        end

        # The same without what is for the teacher only.
        def class_tally = @class_tally ||= slide.prompt.for_class(tally)

        def names = @names ||= seats.to_h { |seat| [seat.id, seat.name] }

        # Which order a seat gets the parts of the present question in.
        # @param seat_id [Integer, nil] nil for the class screen
        # @return [Integer, nil] nil when they come in one order
        def order(seat_id)
          return nil unless slide&.prompt&.shuffle?

          deal = seat_id ? seat_id % ORDERS : "screen"
          (@orders ||= {})[deal] ||= Digest::SHA256.digest("#{@seed} #{id} #{slide.id} #{deal}").unpack1("Q>")
        end

        # Whether seats see what others give as it comes.
        def live_board? = !slide.nil? && slide.prompt&.board? && state.shows?("results")

        # One a seat, in order of joining; state is :answered, :writing, :here or :away.
        # @return [Array<Bird>]
        def birds
          @birds ||= seats.map do |seat|
            Bird.new(seat_id: seat.id, name: seat.name, state: doing(seat), here: seat.here, practice: seat.practice).freeze
          end
        end

        # How many have answered.
        def answered = birds.count { |bird| bird.state == :answered }

        # @return [Outcome]
        def outcome(slide_id, seat_id)
          Outcome.of(slide: lesson.slide(slide_id), answer: answer(slide_id, seat_id),
                     shown_at: shown.fetch(slide_id, NONE)[seat_id], run: state.runs[slide_id],
                     game: lesson.game?(slide_id), speed: options.speed, aside: state.aside?(slide_id))
        end

        # Questions that a seat was shown, or answered, and that count.
        # @return [Array<Slide>]
        def asked_of(seat_id)
          lesson.prompts.select do |slide|
            next false if !state.runs.key?(slide.id) || state.aside?(slide.id) || passed_over?(slide.id)

            shown.fetch(slide.id, NONE).key?(seat_id) || answer(slide.id, seat_id)
          end
        end

        # Questions of the round the session is in that have closed, in the order in which
        # they were opened.
        def played
          lesson.round(state.slide_id).select { |slide| over?(slide.id) && !passed_over?(slide.id) }
                .sort_by { |slide| state.run(slide.id).opened_at }
        end

        # @return [Array<Game::Standings::Row>] after all questions of this round played so far
        def standings
          @standings ||= begin
            played_now = played
            before = played_now.length > 1 ? points(played_now[0..-2]) : nil
            Game::Standings.rows(names, points(played_now), before)
          end
        end

        def standings_by_seat = @standings_by_seat ||= standings.to_h { |row| [row.seat_id, row] }

        # @return [Hash{Integer=>Integer}] seat id to points over these slides
        def points(slides)
          seats.to_h { |seat| [seat.id, slides.sum { |slide| outcome(slide.id, seat.id).points || 0 }] }
        end

        NONE = {}.freeze
        private_constant :NONE

        private

        def doing(seat)
          answer = given[seat.id] || unread[seat.id]
          return seat.here ? :here : :away unless answer
          return :answered if answer.readable? && (answer.final || answer.unfinished?(state.run))
          return :away unless seat.here

          state.run&.open? ? :writing : :here
        end

        def over?(slide_id) = state.runs.key?(slide_id) && !(state.run(slide_id).open? && state.live?)
      end
    end
  end
end

# frozen_string_literal: true

require "digest"
require "forwardable"

module Roost
  module Core
    module Session
      # A record plus where the session stands now: everything a live view is made of.
      #
      # last_time:: Hash of slide id to the mean mark its question earned in an earlier session
      # stopped:: names that were not let in, and wait for the teacher
      # seed:: what the orders at seats come from, known to the server only
      # sittings:: Hash of seat id to the latest Sitting in the quiz the class is at
      # now:: epoch seconds
      class Moment
        extend Forwardable

        # here:: also when the state is :answered, of one who has left since
        # away_since:: epoch seconds, nil of one who is here
        SeatStatus = Struct.new(:seat_id, :name, :state, :here, :practice, :away_since)

        # How many orders the options of a shuffled question are given out in: enough that
        # neighbours differ, few enough to render.
        ORDERS = 12

        # Which order the parts of a question come in at a seat, where that has one of its own.
        # @param deal [Object] the same for all who get the same order
        # @return [Integer]
        def self.order(seed, session_id, slide_id, deal)
          Digest::SHA256.digest("#{seed} #{session_id} #{slide_id} #{deal}").unpack1("Q>")
        end

        attr_reader :record, :state, :version, :code, :stopped, :class_name, :last_time, :sittings, :now

        # What happened so far.
        def_delegators :record, :id, :title, :lesson, :options, :seats, :names, :answer, :outcome, :passed_over?, :asked_of,
                       :roll, :missing, :teams, :team_of

        # @param record [Record]
        # @param state [State]
        def initialize(record:, state:, version:, code:, stopped: [], class_name: "", last_time: {}, seed: "",
                       sittings: {}, now: 0.0)
          @record = record
          @state = state
          @version = version
          @code = code
          @stopped = stopped
          @class_name = class_name
          @last_time = last_time
          @seed = seed
          @sittings = sittings
          @now = now
        end

        # What comes of the block, which depends on this moment alone.
        # @param name [Symbol] of that
        def once(name) = (@once ||= {})[name] ||= yield

        # Where the class is: a slide, the card of a quiz or a round, or the end of a round.
        def slide = lesson.stop(state.slide_id)

        # @return [Section, nil] the quiz the class is at
        def quiz = lesson.quiz(state.slide_id)

        # Position among the slides the class gets, from 0; of a quiz, that of its first.
        def place
          id = quiz ? lesson.slides_of(quiz).first.id : state.slide_id
          id = lesson.slides_of(section_at).public_send(at_end? ? :last : :first).id if section_at && lesson.slide(id).nil?
          lesson.class_slides.index { |slide| slide.id == id }
        end

        # @return [Section, nil] the game round the class is in, at its beginning or at its end
        def section_at = @section_at ||= lesson.round_at(state.slide_id)

        # Whether the class is where a game round begins, before its questions.
        def at_beginning? = !section_at.nil? && section_at.id == state.slide_id

        # Whether the class is at the end of a game round.
        def at_end? = !section_at.nil? && section_at.end_id == state.slide_id

        # How the round that the class is in went so far.
        # @return [RoundResult, nil]
        def round = @round ||= section_at && RoundResult.new(record, section_at)

        # How each does against the last time that this round was played here, or else against the class's median of the
        # questions so far.
        # @return [Hash{Integer=>Game::Comparison}] by seat, of those with whom there is something to compare
        def against = @against ||= round ? RoundComparisons.of(record, section_at, round) : {}

        # Which attempt at the present question is open, or was last.
        def attempt = record.attempt(state.slide_id)

        # Whether an answer handed in may be changed: as the question says, else the session.
        def may_change
          own = slide&.prompt&.may_change
          own.nil? ? options.may_change : own
        end

        # Of the present slide, where none is named: see Record.
        def given(slide_id = state.slide_id) = record.given(slide_id)
        def unread(slide_id = state.slide_id) = record.unread(slide_id)
        def tally(slide_id = state.slide_id) = record.tally(slide_id)

        # The tally of the present slide without what is for the teacher only.
        def class_tally = @class_tally ||= slide.prompt.for_class(tally)

        # The clock of the present question, where reading has a time of its own.
        # @return [Game::Timing, nil]
        def reading_timing
          unless slide&.prompt && lesson.game?(slide.id) && record.rules.reading_first? && record.style(slide.id).clock?
            return nil
          end

          Game::Timing.of(slide, record.rules)
        end

        # Which order a seat gets the parts of the present question in.
        # @param seat_id [Integer, nil] nil for the class screen
        # @return [Integer, nil] nil when they come in one order
        def order(seat_id)
          return nil unless slide&.prompt&.shuffle?

          deal = seat_id ? seat_id % ORDERS : "screen"
          (@orders ||= {})[deal] ||= Moment.order(@seed, id, slide.id, deal)
        end

        # Whether seats see what others give as it comes.
        def live_board? = !slide.nil? && slide.prompt&.board? && state.shows?("results")

        # One a seat, in order of joining; state is :answered, :writing, :here or :away.
        # @return [Array<Bird>]
        def seat_statuses
          @seat_statuses ||= begin
            readable = given
            unreadable = unread
            at_quiz = !quiz.nil?
            # Where the same people are there as a moment ago, most do what they did.
            earlier = record.memory.views[:seat_statuses] ||= {}
            seats.map do |seat|
              doing = at_quiz ? at_work(seat) : doing(seat.here, answer_of(seat, readable, unreadable))
              next earlier[seat.id] if earlier[seat.id]&.state == doing

              earlier[seat.id] = SeatStatus.new(seat.id, seat.name, doing, seat.here, seat.practice, seat.away_since).freeze
            end
          end
        end

        # Where teams answer as one, what tells of each seat whether its team has given something else.
        # @return [Hash{Integer=>Array}, nil] by seat, of those whose team has given something; nil elsewhere
        def team_answers
          return nil unless as_one? && state.live?

          all = seats.to_h { |seat| [seat.id, record.of_teams.of(state.slide_id, seat.id)] }.compact
          all.transform_values { |answer| [answer.save_id, answer.final] }
        end

        # Seats that are here, have more time than others, and have not handed in what is asked: they are waited for.
        # @return [Array<Seat>]
        def with_longer
          @with_longer ||= quiz ? [] : seats.select { |seat| seat.here && seat.factor > 1 && !done?(seat) }
        end

        # When something is to be done about the present question by the clock: it closes, for most or for all, or what tells
        # how it went goes up (see Commands#expire). Nothing happens before Opening::GRACE is over.
        # @return [Float, nil] epoch seconds
        def due_at
          return nil unless state.live?
          return state.showing["next_at"] || (now if state.to_show) if at_end?
          return state.talk.deadline if state.talk&.before_answers?

          state.opening && question_due_at(state.opening)
        end

        # How many have answered.
        def answered = seat_statuses.count { |bird| bird.state == :answered }

        # @return [Array<Game::Standings::Row>] of seats, or of teams, after all questions of this round played so far
        def standings = round ? round.standings : []

        # @return [Hash{Integer=>Game::Standings::Row}] seat id to its own, also where teams stand in an order
        def standings_by_seat = @standings_by_seat ||= round.rows.to_h { |row| [row.seat_id, row] }

        # @return [Hash{Integer=>Game::Standings::Row}] team id to its row
        def standings_by_team = @standings_by_team ||= round.team_rows.to_h { |row| [row.seat_id, row] }

        private

        # @return [Float, nil]
        def question_due_at(opening)
          return (opening.closed_at if state.to_show) unless opening.open?

          opening.most_at ? opening.deadline_for(with_longer.map(&:factor).max || 1) : opening.deadline
        end

        # Where teams answer as one, what its team gave.
        def answer_of(seat, readable, unreadable)
          return record.of_teams.of(state.slide_id, seat.id) if as_one?

          readable[seat.id] || unreadable[seat.id]
        end

        def as_one? = (@as_one ||= [slide&.prompt && record.of_teams.as_one?(slide.id)]).first

        def done?(seat) = answer(state.slide_id, seat.id)&.final || false

        def doing(here, answer)
          return here ? :here : :away unless answer
          return :answered if answer.readable? && (answer.final || answer.unfinished?(state.opening))
          return :away unless here

          state.opening&.open? ? :writing : :here
        end

        # In a quiz, :answered is who has handed in, or whose time is up.
        def at_work(seat)
          sitting = sittings[seat.id]
          return :answered if sitting&.over?(now)
          return :away unless seat.here

          sitting ? :writing : :here
        end
      end
    end
  end
end

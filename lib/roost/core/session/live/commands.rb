# frozen_string_literal: true

module Roost
  module Core
    module Session
      # The commands a teacher gives a session, one public method each. Each takes
      # the arguments it was sent and gives the next State, or a refusal with a reason.
      # Commands say where to get to, not what to flip, and moves say from where: so a
      # command that is sent twice, or from two Desks at once, does its work once and
      # is the same State the second time.
      class Commands
        include Playing
        include Quizzing
        include Showing
        include Talking
        include Writing

        NAMES = %w[begin next back jump open again close expire add_time more_time talk move_talk end_talk pair pen
                   pen_down board board_down show hide spotlight eyes_up eyes_down put_aside count_again curate lock unlock
                   by_hand by_themselves make_room play reveal run_end stop_end end].freeze
        ADDED_SECONDS = (5..600)
        ROOM = (1..1500)

        # @param name [String] one of NAMES
        # @param arguments [Hash{String=>Object}] as sent
        # @param now [Float] seconds since the epoch, by the database clock
        # @param present [#call] gives the ids of the seats that are here, where a command has to know
        # @param longest [#call] gives the largest time factor of those who are here and have not answered what is open
        # @param steps [#call] gives how many steps the end of the present round has
        # @return [Reading] of the next State
        def self.call(lesson, options, state, name, arguments, now, present: -> { [] }, longest: -> { 1 }, steps: -> { 1 })
          return Reading.refused("The Desk doesn't know that command. Reload the page.") unless NAMES.include?(name)

          new(lesson, options, state, now, present: present, longest: longest, steps: steps).public_send(name, arguments)
        end

        # @param about [Hash] :present, :longest and :steps, see .call
        def initialize(lesson, options, state, now, **about)
          @lesson = lesson
          @options = options
          @state = state
          @now = now
          @present, @longest, @steps = about.values_at(:present, :longest, :steps)
        end

        def begin(_arguments)
          return same unless state.lobby?

          first = lesson.stops.first
          return Reading.refused("This lesson has no slides for the class. Add one, then start again.") unless first

          enter(state.with(phase: "live", begun_at: now), first)
        end

        def next(arguments) = step(arguments, 1)

        def back(arguments) = step(arguments, -1)

        def jump(arguments)
          slide = lesson.stop(arguments["slide"])
          return Reading.refused("That slide isn't in this lesson. Reload the page.") unless slide
          return Reading.refused("That slide is for teachers only. The class can't be sent there.") unless slide.for_class

          while_live { slide.id == state.slide_id ? same : enter(leaving, slide) }
        end

        def open(_arguments)
          with_answers do |slide|
            opening = state.opening
            next same if opening&.open?
            next open_quiz(slide) if quiz

            limit = limit_of(slide)
            talk = state.talk unless state.talk&.before_answers?
            put(in_round(state, slide).with(showing: at_once(slide), to_show: nil, talk: talk),
                slide, opening ? opening.reopened(now, limit) : fresh_opening(slide))
          end
        end

        # Asks the present question anew: another attempt, which begins without answers. What was
        # given before is kept. "after" says after which attempt, so that a second click asks once.
        def again(arguments)
          with_prompt do |slide|
            opening = state.opening
            next Reading.refused("Open answers first.") unless opening
            next same if done?(arguments, opening.attempt)

            put(leaving.with(showing: at_once(slide)), slide, fresh_opening(slide, attempt: opening.attempt + 1))
          end
        end

        def close(_arguments)
          with_answers { state.open? ? Reading.ok(shut) : same }
        end

        # The deadline has passed, or the grace after it; sent by the clock of any web process.
        def expire(_arguments)
          return same unless state.live?
          return in_round_by_clock if ending || state.talk&.before_answers?
          return show_at_last if state.to_show
          return same unless state.opening&.expired?(now)

          quiz || state.opening.expired?(now, factor: longest.call) ? close_by_clock : for_those_with_longer
        end

        def add_time(arguments)
          seconds = arguments.key?("seconds") ? whole(arguments, "seconds") : 15
          unless seconds && ADDED_SECONDS.cover?(seconds)
            return Reading.refused("Between 5 and 600 seconds can be added at a time.")
          end

          with_answers do |slide|
            next Reading.refused("Answers are closed. Open them first, then add time.") unless state.open?

            put(state, slide, state.opening.extended(now, seconds))
          end
        end

        # Those who are here, in groups of "size" 2 or 3, "after" so many times: a second click does it once.
        def pair(arguments)
          size = whole(arguments, "size")
          return Reading.refused("In twos or threes.") unless Pairing::SIZES.cover?(size)

          while_live do
            next same if done?(arguments, state.pairs.length)

            earlier = state.pairs.last(Pairing::MOST_ROUNDS)
            groups = Pairing.of(present.call, size: size, earlier: earlier, seed: (now * 1000).to_i)
            next Reading.refused("Fewer than two are here.") if groups.empty?

            Reading.ok(state.with(facts: state.facts.pairing(groups),
                                  showing: state.showing.except("standings").merge("pairs" => true).freeze))
          end
        end

        def eyes_up(_arguments) = while_live { Reading.ok(state.with(eyes_up: true)) }

        def eyes_down(_arguments) = while_live { Reading.ok(state.with(eyes_up: false)) }

        def lock(_arguments) = while_open { state.with(locked: true) }

        def unlock(_arguments) = while_open { state.with(locked: false) }

        # Devices that have not been here wait until the teacher lets them in.
        def by_hand(_arguments) = while_open { state.with(by_hand: true) }

        def by_themselves(_arguments) = while_open { state.with(by_hand: false) }

        # "seats" says how many there are to be room for.
        def make_room(arguments)
          seats = whole(arguments, "seats")
          return Reading.refused("There can be room for 1 to #{ROOM.max} students.") unless seats && ROOM.cover?(seats)

          while_open { state.with(room_for: seats) }
        end

        # The question counts for nobody; also after the session's end.
        def put_aside(arguments) = with_asked(arguments) { |id| state.with(facts: state.facts.setting_aside(id)) }

        def count_again(arguments) = with_asked(arguments) { |id| state.with(facts: state.facts.setting_aside(id, aside: false)) }

        # Does something with single things that were given on a slide: "what" as the kind declares it
        # (Kinds::Handling).
        def curate(arguments)
          id = arguments["slide"]
          curated = lesson.slide(id)&.prompt&.curated(arguments["what"], arguments, state.curation(id))
          return Reading.refused("That can't be done with it. Reload the page.") unless curated

          with_asked(arguments) { state.with(facts: state.facts.curating(id, curated)) }
        end

        def end(_arguments)
          return same if state.ended?

          Reading.ok(all_closed.with(phase: "ended", showing: {}.freeze, eyes_up: false, talk: nil, pen: false, board: nil,
                                     to_show: nil))
        end

        private

        attr_reader :lesson, :options, :state, :now, :present, :longest, :steps

        def same = Reading.ok(state)

        # @return [Integer, nil] what was sent by that name
        def whole(arguments, name) = Integer(arguments[name].to_s, 10, exception: false)

        # Whether what is to come "after" so many has come already: this is a second click.
        def done?(arguments, many) = arguments["after"] && arguments["after"].to_s != many.to_s

        def while_open = state.ended? ? Reading.refused("This session has ended.") : Reading.ok(yield)

        def while_live
          return Reading.refused("This session has ended.") if state.ended?
          return Reading.refused("The lesson hasn't begun yet. Begin it first.") if state.lobby?

          yield
        end

        def with_prompt
          while_live do
            slide = lesson.stop(state.slide_id)
            slide.prompt ? yield(slide) : Reading.refused("This slide has no question.")
          end
        end

        # A question, or a quiz as a whole.
        def with_answers(&block)
          while_live { quiz ? yield(lesson.stop(quiz.id)) : with_prompt(&block) }
        end

        # A question that was asked in this session, now or before, by itself or in a quiz.
        def with_asked(arguments)
          id = arguments["slide"]
          asked = [id, lesson.section_of(id)&.id].any? { |each| state.openings.key?(each) }
          return Reading.refused("That question hasn't been asked in this session.") unless asked

          Reading.ok(yield(id))
        end

        def step(arguments, by)
          while_live do
            next same if arguments["from"] && arguments["from"] != state.slide_id

            target = lesson.neighbour(state.slide_id, by)
            next enter(leaving, target) if target

            Reading.refused(by.positive? ? "That was the last slide." : "This is the first slide.")
          end
        end

        # The state with what is open here closed.
        def leaving = state.open? ? shut : state

        # Where each goes through it alone, every question was open.
        def all_closed
          left = leaving
          open = left.openings.select { |_, openings| openings.last.open? }
          open.reduce(left) { |so_far, (id, openings)| so_far.opened(id, openings.last.closed(now)) }
        end

        # @param late [Boolean] whether some had longer than the deadline
        def shut(late: false)
          closed = state.opened(state.slide_id, state.opening.closed(now, late: late))
          quiz ? with_questions_closed(closed) : closed
        end

        def close_by_clock
          shown = options.results_itself && !quiz ? state.showing.merge("results" => true).freeze : state.showing
          Reading.ok(shut(late: !state.opening.most_at.nil?).with(showing: shown))
        end

        # Closed for most; those with extra time go on.
        def for_those_with_longer
          state.opening.most_at ? same : put(state, lesson.stop(state.slide_id), state.opening.closed_for_most)
        end

        def enter(from, slide)
          entered = from.with(slide_id: slide.id, showing: at_once(slide), eyes_up: false, talk: nil, board: nil, to_show: nil)
          entered = in_round(entered, slide)
          entered = inked(entered) if entered.pen
          return Reading.ok(entered) unless opens?(slide, entered)

          talking = talk_before(entered, slide)
          talking ? Reading.ok(talking) : put(entered, slide, fresh_opening(slide, from: entered))
        end

        # Whether a question, or a quiz, opens as soon as it is reached: as the session says, and once.
        def opens?(slide, entered)
          asks = slide.prompt || lesson.quiz(slide.id)
          asks && options.opens_itself && entered.opening(slide.id).nil?
        end

        # A board is there for all from the start.
        def at_once(slide) = (slide.prompt&.board? ? { "results" => true } : {}).freeze

        def put(from, slide, opening) = Reading.ok(from.opened(slide.id, opening))
      end
    end
  end
end

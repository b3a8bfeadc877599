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
        NAMES = %w[begin next back jump open again close expire add_time show hide spotlight eyes_up eyes_down
                   put_aside count_again curate lock unlock make_room end].freeze
        SHOWN = %w[results key standings].freeze
        ADDED_SECONDS = (5..600)
        ROOM = (1..1500)
        MOST_SPOTLIGHTS = 4
        MOST_PAGES = 1000

        # @param name [String] one of NAMES
        # @param arguments [Hash{String=>Object}] as sent
        # @param now [Float] seconds since the epoch, by the database clock
        # @return [Reading] of the next State
        def self.call(lesson, options, state, name, arguments, now)
          return Reading.refused("The Desk doesn't know that command. Reload the page.") unless NAMES.include?(name)

          new(lesson, options, state, now).public_send(name, arguments)
        end

        def initialize(lesson, options, state, now)
          @lesson = lesson
          @options = options
          @state = state
          @now = now
        end

        def begin(_arguments)
          return same unless state.lobby?

          first = lesson.class_slides.first
          return Reading.refused("This lesson has no slides for the class. Add one, then start again.") unless first

          enter(state.with(phase: "live"), first)
        end

        def next(arguments) = step(arguments, 1)

        def back(arguments) = step(arguments, -1)

        def jump(arguments)
          slide = lesson.slide(arguments["slide"])
          return Reading.refused("That slide isn't in this lesson. Reload the page.") unless slide
          return Reading.refused("That slide is for teachers only. The class can't be sent there.") unless slide.for_class

          while_live { slide.id == state.slide_id ? same : enter(leaving, slide) }
        end

        def open(_arguments)
          with_prompt do |slide|
            opening = state.opening
            next same if opening&.open?

            limit = slide.prompt.time_limit
            put(state.with(showing: at_once(slide)), slide, opening ? opening.reopened(now, limit) : Opening.begin(now, limit))
          end
        end

        # Asks the present question anew: another attempt, which begins without answers. What was
        # given before is kept. "after" says after which attempt, so that a second click asks once.
        def again(arguments)
          with_prompt do |slide|
            opening = state.opening
            next Reading.refused("Open answers first.") unless opening
            next same if arguments["after"] && arguments["after"].to_s != opening.attempt.to_s

            fresh = Opening.begin(now, slide.prompt.time_limit, attempt: opening.attempt + 1)
            put(leaving.with(showing: at_once(slide)), slide, fresh)
          end
        end

        def close(_arguments)
          with_prompt { |slide| state.open? ? put(state, slide, state.opening.closed(now)) : same }
        end

        # The deadline has passed; sent by the clock of any web process.
        def expire(_arguments)
          return same unless state.live? && state.opening&.expired?(now)

          put(state, lesson.slide(state.slide_id), state.opening.closed(now))
        end

        def add_time(arguments)
          seconds = Integer(arguments.fetch("seconds", 15), exception: false)
          unless seconds && ADDED_SECONDS.cover?(seconds)
            return Reading.refused("Between 5 and 600 seconds can be added at a time.")
          end

          with_prompt do |slide|
            next Reading.refused("Answers are closed. Open them first, then add time.") unless state.open?

            put(state, slide, state.opening.extended(now, seconds))
          end
        end

        def show(arguments)
          what = arguments["what"]
          return Reading.refused("That can't be put on the class screen.") unless SHOWN.include?(what)

          with_prompt do |slide|
            reason = reason_not_to_show(what, slide)
            next Reading.refused(reason) if reason

            shown = state.showing.except("standings").merge(what => true, **(what == "results" ? look(slide, arguments) : {}))
            keep_showing(what == "standings" ? { what => true } : shown)
          end
        end

        # A "seat" takes only that one out of the spotlight.
        def hide(arguments)
          what = arguments["what"]
          seat = Integer(arguments["seat"].to_s, 10, exception: false)
          left = state.spotlights.reject { |light| light["seat"] == seat }
          return while_live { keep_showing(state.showing.merge("spotlight" => left)) } if what == "spotlight" && seat && left.any?

          gone = what == "results" ? %w[results key look page] : [what]
          while_live { keep_showing(state.showing.except(*gone)) }
        end

        # One seat's answer instead of what is in the spotlight, or with "beside" next to it.
        def spotlight(arguments)
          seat = Integer(arguments["seat"].to_s, 10, exception: false)
          return Reading.refused("That answer isn't here any more. Choose another.") unless seat

          with_prompt do
            others = arguments["beside"] == "1" ? state.spotlights.reject { |light| light["seat"] == seat } : []
            if others.length == MOST_SPOTLIGHTS
              next Reading.refused("Four answers side by side is the most. Take one down first.")
            end

            lights = others + [{ "seat" => seat, "named" => arguments["named"] == "1" }]
            keep_showing(state.showing.except("standings").merge("spotlight" => lights))
          end
        end

        def eyes_up(_arguments) = while_live { Reading.ok(state.with(eyes_up: true)) }

        def eyes_down(_arguments) = while_live { Reading.ok(state.with(eyes_up: false)) }

        def lock(_arguments) = while_open { state.with(locked: true) }

        def unlock(_arguments) = while_open { state.with(locked: false) }

        # "seats" says how many there are to be room for.
        def make_room(arguments)
          seats = Integer(arguments["seats"].to_s, 10, exception: false)
          return Reading.refused("There can be room for 1 to #{ROOM.max} students.") unless seats && ROOM.cover?(seats)

          while_open { state.with(room_for: seats) }
        end

        # The question counts for nobody; also after the session's end.
        def put_aside(arguments) = with_asked(arguments) { |id| state.with(set_aside: (state.set_aside | [id]).freeze) }

        def count_again(arguments) = with_asked(arguments) { |id| state.with(set_aside: (state.set_aside - [id]).freeze) }

        # Does something with single things that were given on a slide: "what" as the kind declares it
        # (Kinds::Handling).
        def curate(arguments)
          id = arguments["slide"]
          curated = lesson.slide(id)&.prompt&.curated(arguments["what"], arguments, state.curation(id))
          return Reading.refused("That can't be done with it. Reload the page.") unless curated

          with_asked(arguments) { state.with(curated: state.curated.merge(id => curated).freeze) }
        end

        def end(_arguments)
          state.ended? ? same : Reading.ok(leaving.with(phase: "ended", showing: {}.freeze, eyes_up: false))
        end

        private

        attr_reader :lesson, :options, :state, :now

        def same = Reading.ok(state)

        def while_open = state.ended? ? Reading.refused("This session has ended.") : Reading.ok(yield)

        def while_live
          return Reading.refused("This session has ended.") if state.ended?
          return Reading.refused("The lesson hasn't begun yet. Begin it first.") if state.lobby?

          yield
        end

        def with_prompt
          while_live do
            slide = lesson.slide(state.slide_id)
            slide.prompt ? yield(slide) : Reading.refused("This slide asks nothing.")
          end
        end

        # How results are to be shown: which page of them, and what else the kind has to say of it.
        def look(slide, arguments)
          page = Integer(arguments["page"].to_s, 10, exception: false) || state.showing.fetch("page", 0)
          { "page" => page.clamp(0, MOST_PAGES), "look" => slide.prompt.look(arguments, state.look) }.reject do |_, part|
            part == {}
          end
        end

        # A question that was asked in this session, now or before.
        def with_asked(arguments)
          id = arguments["slide"]
          return Reading.refused("That question hasn't been asked in this session.") unless state.openings.key?(id)

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

        # The state with the current prompt closed.
        def leaving
          return state unless state.open?

          state.opened(state.slide_id, state.opening.closed(now))
        end

        def enter(from, slide)
          entered = from.with(slide_id: slide.id, showing: at_once(slide), eyes_up: false)
          if slide.prompt && options.opens_itself && !entered.openings.key?(slide.id)
            put(entered, slide, Opening.begin(now, slide.prompt.time_limit))
          else
            Reading.ok(entered)
          end
        end

        # A board is there for all from the start.
        def at_once(slide) = (slide.prompt&.board? ? { "results" => true } : {}).freeze

        def put(from, slide, opening) = Reading.ok(from.opened(slide.id, opening))

        def keep_showing(showing) = Reading.ok(state.with(showing: showing.freeze))

        def reason_not_to_show(what, slide)
          if what == "key" && !slide.prompt.keyed?
            "This question has no key."
          elsif what == "standings" && lesson.round(slide.id).empty?
            "This slide is in no game round."
          elsif state.open? && %w[key standings].include?(what)
            "Close answers first."
          end
        end
      end
    end
  end
end

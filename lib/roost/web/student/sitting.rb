# frozen_string_literal: true

module Roost
  module Web
    # A student at work in a quiz at their own speed: parts of their seat's page, which asks for them
    # (assets/js/seat/elements/seat-sitting.js). The token of the seat is all it is known by.
    class Sitting < App
      include ItemIdPlaceholders
      include Queued

      # Requests of one seat: moving on, and the slides that are fetched ahead.
      PACE = { burst: 30, rate: 4 }.freeze
      TOO_FAST = "That was too fast. Wait a moment, then try again."
      NOTHING_SHARED = "You can't see other students' work here."
      set :pace, Pace.new(**PACE)

      # Where they are; a quiz is begun by that.
      get("/:token") { |token| shown(token) }

      # An assignment is begun, or begun again.
      post("/:token/begin") { |token| shown(token, begins: true) }

      # Another of its slides.
      post("/:token/place") { |token| shown(token, to: number("to")) }

      # A slide to be kept on the device: nothing is noted. Where it can't be had ahead there is nothing to keep; a device asks on
      # its own, also when the student has just handed in, so that this is no fault.
      get "/:token/slides/:place" do |token, place|
        seat = seat(token)
        row = row(seat)
        taken = Operations::TakeSitting.new.ahead(seat, row, whole(place).to_i) || halt(204)
        rendered(seat, row, taken, "sitting/slide")
      end

      # All of their answers, before they hand in.
      get("/:token/look-back") { |token| shown(token, view: "sitting/look_back") }

      post "/:token/hand-in" do |token|
        seat = seat(token)
        taken = Operations::TakeSitting.new.call(seat, row(seat))
        Operations::HandInSitting.new.call(seat, taken) if taken
        shown(token)
      end

      # What the others put on the board of a slide, once the student has given something themselves.
      get "/:token/others/:place" do |token, place|
        seat = seat(token)
        row = row(seat)
        taken = Operations::TakeSitting.new.look(seat, row)
        step = taken && board_at(page_of(row, taken), whole(place))
        halt 404, refuse(NOTHING_SHARED, 404) unless step
        next partial("sitting/own_first") unless step.sees_others

        tally = Store::Records.new.at_slide(row, step.slide.id).tally(step.slide.id)
        html = partial("sitting/others", slide: step.slide, tally: step.slide.prompt.for_class(tally),
                                         open: !taken.sitting.over?(row.now))
        ItemIdPlaceholders.fill(html, Operations::SaveAnswer.names(seat, step.slide))
      end

      # The student is still there.
      post "/:token/here" do |token|
        Operations::NoteAtWork.new.call(seat(token))
        204
      end

      helpers do
        def seat(token)
          seat = Store::Seats.new.by_token(token) || halt(404, refuse("This seat is not known. Reload the page."))
          settings.pace.turn?(seat[:id]) ? seat : halt(429, refuse(TOO_FAST, 429))
        end

        # @return [Core::Session::Views::SelfPaced::Step, nil]
        def board_at(page, place) = page.steps.find { |step| step.place == place && step.slide.prompt&.shows_others? }

        def row(seat) = Store::Sessions.new.find(seat[:session_id]).then { |row| row.deleted ? not_found : row }

        def shown(token, view: nil, **how)
          seat = seat(token)
          row = row(seat)
          taken = Operations::TakeSitting.new.call(seat, row, **how)
          return partial("sitting/missed") unless taken
          return cover(seat, row, taken) unless taken.kept

          rendered(seat, row, taken, view || "sitting/slide")
        end

        def cover(seat, row, taken)
          partial("sitting/cover", task: taken.task, now: row.now, played: played(taken), number: number_of(seat))
        end

        # @return [String, nil] with which they come back
        def number_of(seat) = Store::Seats.new.number(seat[:id])

        # @param view [String] for who is at work
        def rendered(seat, row, taken, view)
          page = page_of(row, taken)
          Operations::NoteTold.new.call(seat, taken.sitting, page)
          view = "sitting/done" unless page.stage == :at_work
          html = partial(view, page: page, now: row.now, task: taken.task, round: round(seat, row, taken, page),
                               copy: (Copies.path(seat[:id]) if row.self_paced && Operations::OwnCopy.allowed?(row, seat[:id])))
          page.slide.prompt ? ItemIdPlaceholders.fill(html, Operations::SaveAnswer.names(seat, page.slide)) : html
        end

        # How many of the questions are played for points.
        def played(taken) = taken.task.slides.count { |slide| taken.lesson.game?(slide.id) }

        # @return [Core::Game::Comparison, nil]
        def round(seat, row, taken, page)
          return nil unless page.told

          told = page.steps.select { |step| step.outcome&.mark }.to_h { |step| [step.slide, step.outcome.mark] }
          Operations::OwnRound.new.call(seat, row, taken, told)
        end

        # In a quiz the class goes on together once it is closed.
        def contested?(row, taken)
          taken.task.open || (row.self_paced && Operations::StillOpen.new.call(row).any?)
        end

        def page_of(row, taken)
          order = lambda do |slide|
            slide.prompt.shuffle? ? Core::Session::Moment.order(taken.seed, row.id, slide.id, "sitting") : nil
          end
          answered = Operations::TakeSitting.answered(taken.lesson, taken.sitting, taken.answers)
          about = { session_id: row.id, title: taken.task.title, now: row.now, order: order, contested: contested?(row, taken) }
          Core::Session::Views::SelfPaced.of(lesson: taken.lesson, sitting: taken.sitting, answers: taken.answers,
                                             answered: answered, open: taken.task.open || taken.task.withdrawn, **about)
        end
      end
    end
  end
end

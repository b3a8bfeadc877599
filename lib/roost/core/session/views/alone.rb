# frozen_string_literal: true

module Roost
  module Core
    module Session
      module Views
        # What a student sees who goes through a quiz at their own speed.
        #
        # stage:: :at_work, :handed_in or :over (no time is left)
        # slide:: the one they are at; own:: Own, to its question, or nil; order:: of the question's parts, or nil
        # steps:: [Step], all of their slides in order; back, following:: the Step before and after, where they may go there
        # told:: whether it may be told how they did; told_later:: that it will be; explained:: and why
        # at_once:: whether each answer is told about when it is given; ends_at:: of their time (epoch seconds), or nil
        Alone = Struct.new(:session_id, :title, :attempt, :stage, :slide, :own, :order, :steps, :back, :following, :told,
                           :told_later, :explained, :ends_at, :at_once, keyword_init: true)

        # What is shown, put together from the sitting and what was answered.
        class Alone
          # place:: from 1; state:: :answered, :seen or :waiting; open:: whether it may be gone to
          # outcome:: Outcome, where it may be told; sees_others:: whether what the others put on its board is shown
          Step = Struct.new(:slide, :place, :state, :here, :open, :outcome, :sees_others, keyword_init: true)

          class << self
            # @param lesson [Lesson]
            # @param sitting [Session::Sitting]
            # @param answers [Hash{String=>Answer}] by slide
            # @param answered [Array<String>] ids of the slides that want nothing more
            # @param closed [Boolean] whether the time is over for everybody
            # @param order [#call] slide to the order of its parts
            # @param about [Hash] :session_id and :title
            # @return [Alone]
            def of(lesson:, sitting:, answers:, answered:, now:, closed:, order:, **about)
              slide = lesson.slide(sitting.slide_id)
              over = sitting.over?(now)
              told = told?(sitting, closed, over)
              tell = ->(answer) { told && (over || !sitting.told_at_once? || answer&.final) }
              steps = steps(lesson, sitting, answers, answered, tell)
              new(**about, attempt: sitting.attempt, stage: stage(sitting, over), slide: slide, steps: steps, told: told,
                           told_later: sitting.rules["feedback"] != "none",
                           own: own(answers[slide.id], steps[sitting.place - 1]), order: slide.prompt && order.call(slide),
                           explained: told && sitting.rules["feedback"] != "right", at_once: sitting.told_at_once?,
                           ends_at: sitting.ends_at, **beside(steps, sitting)).freeze
            end

            # @param closed [Boolean] whether the time is over for everybody; over:: for this student
            def told?(sitting, closed, over)
              case sitting.rules["feedback"]
              when "none" then false
              when "end" then closed && over
              else true
              end
            end

            private

            def stage(sitting, over)
              return :handed_in if sitting.handed_in_at

              over ? :over : :at_work
            end

            # @param tell [#call] answer to whether it may be told how it was; before the end only of what was settled
            def steps(lesson, sitting, answers, answered, tell)
              progress = sitting.progress(answered: answered)
              sitting.slides.each_with_index.map do |id, place|
                slide = lesson.slide(id)
                Step.new(slide: slide, place: place + 1, state: progress[id], here: place + 1 == sitting.place,
                         open: sitting.open?(place + 1, answered: answered), sees_others: sees_others?(slide.prompt, answers[id]),
                         outcome: (outcome(slide, sitting, answers[id]) if slide.prompt && tell.call(answers[id]))).freeze
              end
            end

            def sees_others?(prompt, answer)
              !prompt.nil? && prompt.shows_others? && !answer.nil? && answer.readable? && prompt.on_board?(answer.value)
            end

            def outcome(slide, sitting, answer)
              Outcome.of(slide: slide, answer: answer, shown_at: (0.0 if sitting.seen.include?(slide.id)), opening: nil,
                         game: false, speed: 0)
            end

            def own(answer, step)
              return nil unless answer

              Own.new(value: (answer.value if answer.readable?), typed: answer.typed, final: answer.final, late: answer.late,
                      save_id: answer.save_id, status: step.outcome&.status).freeze
            end

            def beside(steps, sitting)
              { back: -1, following: 1 }.transform_values do |by|
                place = sitting.place + by
                steps[place - 1] if place.between?(1, steps.length) && steps[place - 1].open
              end
            end
          end
        end
      end
    end
  end
end

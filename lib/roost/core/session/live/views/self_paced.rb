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
        # told:: whether it is told how they did; told_later:: that it will be; soon:: after the second of grace
        # at_once:: whether each answer is told about when it is given; ends_at:: of their time (epoch seconds), or nil
        SelfPaced = Struct.new(:session_id, :title, :attempt, :stage, :slide, :own, :order, :steps, :back, :following, :told,
                               :told_later, :soon, :ends_at, :at_once, keyword_init: true)

        # What is shown, put together from the sitting and what was answered.
        class SelfPaced
          # place:: from 1; state:: :answered, :seen or :waiting; open:: whether it may be gone to
          # outcome:: Outcome, where it may be told; explained:: whether it may be told, too, what is right and why
          # sees_others:: whether what the others put on its board is shown
          Step = Struct.new(:slide, :place, :state, :here, :open, :outcome, :explained, :sees_others, keyword_init: true)

          class << self
            # @param lesson [Lesson]
            # @param sitting [Session::Sitting]
            # @param answers [Hash{String=>Answer}] by slide
            # @param answered [Array<String>] ids of the slides that want nothing more
            # @param open [Boolean] whether this student may still answer, in this attempt or another
            # @param contested [Boolean] whether anybody may still answer the same questions
            # @param order [#call] slide to the order of its parts
            # @param about [Hash] :session_id and :title
            # @return [SelfPaced]
            def of(lesson:, sitting:, answers:, answered:, now:, open:, contested:, order:, **about)
              slide = lesson.slide(sitting.slide_id)
              level = lambda do |id|
                given = answers[id] if answered.include?(id)
                Disclosure.in_sitting(sitting, given, now: now, open: open, contested: contested)
              end
              steps = steps(lesson, sitting, answers, answered, level)
              new(**about, attempt: sitting.attempt, stage: stage(sitting, sitting.over?(now)), slide: slide, steps: steps,
                           told: steps.any?(&:outcome), told_later: sitting.rules["feedback"] != "none",
                           soon: sitting.over?(now) && !sitting.settled?(now),
                           own: own(answers[slide.id], steps[sitting.place - 1]), order: slide.prompt && order.call(slide),
                           at_once: sitting.told_at_once?, ends_at: sitting.ends_at, **beside(steps, sitting)).freeze
            end

            private

            def stage(sitting, over)
              return :handed_in if sitting.handed_in_at

              over ? :over : :at_work
            end

            # @param level [#call] id of a slide to what may be told of it (Disclosure)
            def steps(lesson, sitting, answers, answered, level)
              progress = sitting.progress(answered: answered)
              sitting.slides.each_with_index.map do |id, place|
                slide = lesson.slide(id)
                told = slide.prompt ? level.call(id) : :nothing
                Step.new(slide: slide, place: place + 1, state: progress[id], here: place + 1 == sitting.place,
                         open: sitting.open?(place + 1, answered: answered), sees_others: sees_others?(slide.prompt, answers[id]),
                         outcome: (outcome(slide, sitting, answers[id]) unless told == :nothing), explained: told == :key).freeze
              end
            end

            def sees_others?(prompt, answer)
              !prompt.nil? && prompt.shows_others? && !answer.nil? && answer.readable? && prompt.on_board?(answer.value)
            end

            def outcome(slide, sitting, answer)
              Scoring.new(slide, style: Game::Plain.new).outcome(answer, (0.0 if sitting.seen.include?(slide.id)))
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

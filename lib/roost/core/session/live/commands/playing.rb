# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Commands
        # A game round: it begins with a page that says what it is, may be played again in another style, and has an end
        # that is told step by step.
        module Playing
          # Seconds from one step of the end to the next, where it runs by itself; those of Opening::GRACE are waited for besides.
          PACE = 1.5

          # The round of a "section" is played from its first question on, as "style", "speed", "goal", "answering" and "talk"
          # say, where they say something. "after" says how often it has been played, so that a second click plays it once.
          def play(arguments)
            section = lesson.round_named(arguments["section"])
            return Reading.refused("That round isn't in this lesson. Reload the page.") unless section

            while_live do
              played = state.plays.fetch(section.id, []).length
              next same if done?(arguments, played)

              enter(playing(leaving, section, arguments), lesson.slides_of(section).first)
            end
          end

          # The next step of the end of a round: "step" says which, from 1, so that a second click takes one.
          def reveal(arguments)
            at_end do
              step = whole(arguments, "step") || (revealed + 1)
              next Reading.ok(state.with(to_show: "reveal")) unless tellable_round?
              next same if step <= revealed

              Reading.ok(reveal_next)
            end
          end

          # The steps of the end come by themselves from now on.
          def run_end(_arguments)
            at_end { Reading.ok(state.with(showing: state.showing.merge("next_at" => now).freeze)) }
          end

          def stop_end(_arguments)
            at_end { Reading.ok(state.with(showing: state.showing.except("next_at").freeze, to_show: nil)) }
          end

          private

          def at_end
            while_live { ending ? yield : Reading.refused("The end of a round isn't up.") }
          end

          # @return [Section, nil] the round at whose end the class is
          def ending = (section = lesson.round_at(state.slide_id)) && section.end_id == state.slide_id ? section : nil

          def revealed = state.showing.fetch("revealed", 0)

          # What tells who was right waits until answers on their way are in.
          def tellable_round?
            openings = lesson.questions_of(ending).filter_map { |slide| state.opening(slide.id) }
            openings.all? { |opening| opening.tellable?(now) }
          end

          def reveal_next
            step = [revealed + 1, steps.call].min
            running = state.showing.key?("next_at") && step < steps.call ? { "next_at" => now + PACE } : {}
            told_of(lesson.questions_of(ending).map(&:id), key: false)
              .with(showing: { "revealed" => step, **running }.freeze, to_show: nil)
          end

          # By the clock: the next step, where the end runs by itself or waited for the last answers.
          def run_on
            due = state.showing["next_at"]
            return same unless (due && due + Opening::GRACE <= now) || state.to_show

            tellable_round? ? Reading.ok(reveal_next) : same
          end

          # @return [Hash] what a Play is told of a round's rules
          def round_rules(section, arguments)
            rules = Section.read_round(arguments, section.round_rules)
            { **rules.transform_keys(&:to_sym), speed: (rules["speed"] || options.speed).to_f }
          end

          # @return [State] in which the round is played once more
          # @param arguments [Hash{String=>String}] as #play has them
          def playing(from, section, arguments = {})
            number = from.plays.fetch(section.id, []).length + 1
            ids = lesson.slides_of(section).map(&:id).freeze
            rules = round_rules(section, arguments)
            play = Play.new(**rules, section_id: section.id, number: number, slide_ids: ids, began_at: now)
            from.with(facts: from.facts.playing(play.freeze))
          end

          # The state with the round of a question under way, where it is in one.
          def in_round(from, slide)
            section = slide.prompt && lesson.round_at(slide.id)
            section && !from.facts.play(section.id) ? playing(from, section) : from
          end

          # Seconds a question is open, in a round with the time to read; nil for as long as the teacher likes.
          # @param play [Play, nil] in which it is asked
          def limit_of(slide, play = state.facts.play_of(slide.id))
            limit = slide.prompt&.time_limit
            return limit unless limit && lesson.game?(slide.id)

            Game::Timing.of(slide, options.rules).total.to_f if play.nil? || play.played.clock?
          end

          # @param from [State] in which it opens
          def fresh_opening(slide, attempt: nil, from: in_round(state, slide))
            play = from.facts.play_of(slide.id)
            Opening.begin(now, limit_of(slide, play), attempt: attempt || from.facts.attempt(slide.id), play: play&.number)
          end

          # What the clock does in a round: the next step of its end, or answers open after teams have talked.
          def in_round_by_clock
            return run_on if ending

            state.talk.deadline + Opening::GRACE <= now ? self.open({}) : same
          end

          # Teams that talk first have their time before answers open.
          def talk_before(from, slide)
            play = from.facts.play_of(slide.id)
            return nil unless play&.talks? && lesson.game?(slide.id) && options.teams?

            from.with(talk: Talk.begin("team", play.talk, now))
          end
        end
      end
    end
  end
end

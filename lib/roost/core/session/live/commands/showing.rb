# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Commands
        # Commands that put something on the class screen, or take it down.
        module Showing
          SHOWN = %w[results key standings].freeze
          # What tells who was right: it waits until answers on their way are in, and settles the question.
          TELLING = %w[key standings].freeze
          MOST_SPOTLIGHTS = 4
          MOST_PAGES = 1000

          def show(arguments)
            what = arguments["what"]
            return Reading.refused("That can't be put on the class screen.") unless SHOWN.include?(what)

            with_prompt do |slide|
              reason = reason_not_to_show(what, slide)
              next Reading.refused(reason) if reason

              next tell(what) if TELLING.include?(what)

              keep_showing(state.showing.except("standings", "pairs").merge(what => true, **look(slide, arguments)))
            end
          end

          # A "seat" takes only that one out of the spotlight.
          def hide(arguments)
            what = arguments["what"]
            seat = whole(arguments, "seat")
            left = state.spotlights.reject { |light| light["seat"] == seat }
            if what == "spotlight" && seat && left.any?
              return while_live { keep_showing(state.showing.merge("spotlight" => left)) }
            end

            gone = what == "results" ? %w[results key look page] : [what]
            while_live { Reading.ok(state.with(showing: state.showing.except(*gone).freeze, to_show: nil)) }
          end

          # One seat's answer instead of what is in the spotlight, or with "beside" next to it.
          def spotlight(arguments)
            seat = whole(arguments, "seat")
            return Reading.refused("That answer isn't here any more. Choose another.") unless seat

            with_prompt do
              others = arguments["beside"] == "1" ? state.spotlights.reject { |light| light["seat"] == seat } : []
              if others.length == MOST_SPOTLIGHTS
                next Reading.refused("Four answers side by side is the most. Take one down first.")
              end

              lights = others + [{ "seat" => seat, "named" => arguments["named"] == "1" }]
              keep_showing(state.showing.except("standings", "pairs").merge("spotlight" => lights))
            end
          end

          private

          # The right answer or the standings go up, or will as soon as the grace after answering is over.
          def tell(what)
            return same if state.shows?(what)
            return Reading.ok(state.with(to_show: what)) unless state.opening.nil? || state.opening.tellable?(now)

            kept = what == "standings" ? {} : state.showing.except("standings", "pairs")
            Reading.ok(told(what).with(showing: kept.merge(what => true).freeze, to_show: nil))
          end

          # What was to wait for the end of the grace.
          def show_at_last
            return same unless state.live? && state.opening&.tellable?(now)

            tell(state.to_show)
          end

          # The state in which what is told of is settled: the present question, with the standings all of its round so far.
          def told(what)
            slides = what == "standings" ? lesson.round(state.slide_id) : [lesson.slide(state.slide_id)]
            told_of(slides.map(&:id), key: what == "key")
          end

          # @param key [Boolean] whether the right answer is told
          def told_of(slide_ids, key:)
            over = slide_ids.select { |id| state.opening(id)&.tellable?(now) }
            over.reduce(state) { |so_far, id| so_far.opened(id, so_far.opening(id).told(now, key: key)) }
          end

          # How results are to be shown: which page of them, and what else the kind has to say of it.
          def look(slide, arguments)
            page = whole(arguments, "page") || state.showing.fetch("page", 0)
            { "page" => page.clamp(0, MOST_PAGES), "look" => slide.prompt.look(arguments, state.look) }.reject do |_, part|
              part == {}
            end
          end

          def keep_showing(showing) = Reading.ok(state.with(showing: showing.freeze))

          def reason_not_to_show(what, slide)
            if what == "key" && !slide.prompt.keyed?
              "This question has no key."
            elsif what == "standings" && lesson.round(slide.id).empty?
              "This slide is in no game round."
            elsif state.open? && TELLING.include?(what)
              "Close answers first."
            end
          end
        end
      end
    end
  end
end

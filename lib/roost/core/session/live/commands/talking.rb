# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Commands
        # Commands of talk time: a timer over the present slide.
        module Talking
          # "what" of Talk::WORDS for so many "seconds".
          def talk(arguments)
            seconds = whole(arguments, "seconds")
            unless Talk::WORDS.key?(arguments["what"]) && seconds && Talk::LENGTHS.cover?(seconds)
              return Reading.refused("Talk time is 10 seconds to an hour.")
            end

            while_live { Reading.ok(state.with(talk: Talk.begin(arguments["what"], seconds, now))) }
          end

          # Longer or shorter by so many "seconds".
          def move_talk(arguments)
            seconds = whole(arguments, "seconds")
            return Reading.refused("Up to 600 seconds at a time.") unless seconds && seconds.abs <= ADDED_SECONDS.max

            while_live { state.talk ? Reading.ok(state.with(talk: state.talk.moved(seconds, now))) : same }
          end

          def end_talk(_arguments) = while_live { Reading.ok(state.with(talk: nil)) }
        end
      end
    end
  end
end

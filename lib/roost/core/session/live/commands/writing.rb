# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Commands
        # Commands of the pen and of blank boards. What is drawn is no command: it goes its own way (Operations::DrawInk).
        module Writing
          # The pen is taken up, over whatever is up.
          def pen(_arguments) = while_live { Reading.ok(inked(state.with(pen: true))) }

          def pen_down(_arguments) = while_live { Reading.ok(state.with(pen: false)) }

          # A blank page with a "paper", or an earlier one again by "number". "after" says how many there were, so that a
          # second click makes one.
          def board(arguments)
            number = whole(arguments, "number")
            while_live do
              next Reading.ok(inked(state.with(board: number, pen: true))) if number && (0...state.boards.length).cover?(number)
              next same if done?(arguments, state.boards.length)

              fresh(arguments["paper"])
            end
          end

          # Back to the slide.
          def board_down(_arguments) = while_live { Reading.ok(state.with(board: nil)) }

          private

          def fresh(paper)
            return Reading.refused("There is no such paper. Reload the page.") unless Ink::PAPERS.key?(paper)
            if state.boards.length >= Ink::MOST_BOARDS
              return Reading.refused("#{Ink::MOST_BOARDS} blank pages is the most in one session.")
            end

            boards = [*state.boards, paper].freeze
            Reading.ok(inked(state.with(boards: boards, board: boards.length - 1, pen: true)))
          end

          def inked(state) = state.with(inked: (state.inked | [Ink.page(state)]).freeze)
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          of_prompt :approve?, :named?, :grouped

          # @return [Board]
          def gathered(values, names: {}, teams: {}, curation: Session::Curation::BLANK, before: nil)
            Board.new(values, names: names, teams: teams, curation: curation, approve: approve?, before: before)
          end

          def waiting(board) = board.waiting.length

          # @return [Board::Shown]
          def for_class(board)
            cards = board.for_class(named: named?)
            Board::Shown.new(groups: grouped(cards), beyond: board.up.length - cards.length,
                             waiting: board.waiting.length).freeze
          end
        end
      end
    end
  end
end

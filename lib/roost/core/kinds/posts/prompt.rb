# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # Adds cards to a board all can see: a text, a picture, an emoji. The teacher may want to
        # see each before the class does, removes, pins and sorts them into columns. Never keyed.
        # A value is {"posts" => [{"id", "text", "emoji", "picture", "at"}], "likes" => [keys of
        # cards of others], "writing" => what is typed and not posted yet}.
        class Prompt < Core::Prompt
          EMOJI = %w[👍 💡 ❓ 😮 😂 ❤️ 🐦 🌊].freeze

          def self.label = "Posts"
          def self.place = 10
          def self.usual_seconds = 90
          def self.purpose = "Add cards to a board all can see"
          def self.charted? = true
          def self.on_the_spot = { "A board" => {} }

          def self.blank
            { "most" => 3, "approve" => true, "named" => false, "likes" => true, "pictures" => true, "others" => true,
              "columns" => [], "samples" => [] }
          end

          def instruction
            cards = most == 1 ? "Add a card to the board" : "Add up to #{most} cards to the board"
            approve? ? "#{cards}. Your teacher sees each one first." : cards
          end

          def most = settings["most"]

          # Whether the teacher sees each card before the class does.
          def approve? = settings["approve"]

          def named? = settings["named"]

          def likes? = settings["likes"]

          def uploads? = settings["pictures"]

          # @return [Array<String>] names of the columns cards can be sorted into
          def columns = settings["columns"]

          def board? = true

          def shows_others? = settings["others"]

          def on_board?(value) = value["posts"].any?

          def listed? = false

          def searchable = super + columns

          # Cards by column, those in none first; all in one while none is sorted. Without columns of its own, a board
          # has one for each team, where there are teams.
          # @return [Array<Array(String, Array<Board::Card>)>] nil as the name of those in none
          def grouped(cards)
            return by_team(cards) if columns.empty?

            by_column = cards.group_by { |card| card.column if card.column && columns[card.column] }
            return [[nil, cards]] if by_column.keys.compact.empty?

            named = columns.each_with_index.map { |name, place| [name, by_column.fetch(place, [])] }
            by_column.key?(nil) ? [[nil, by_column[nil]], *named] : named
          end

          # @return [Array<Array(String, Array<Board::Card>)>] all in one where there are no teams
          def by_team(cards) = cards.any?(&:team) ? cards.group_by(&:team).sort_by { |team, _| team.to_s } : [[nil, cards]]

          # A card as its writer made it, whatever became of it.
          # @param seat_id [Integer, nil] the writer's
          def card_of(post, seat_id)
            Board::Card.new(key: seat_id && "#{seat_id}-#{post["id"]}", text: post["text"], emoji: post["emoji"],
                            picture: Picture.from_document(post["picture"])).freeze
          end
        end
      end
    end
  end
end

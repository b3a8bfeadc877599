# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          # Cards on a page, as they come and sorted into columns.
          ON_A_PAGE = 12
          SORTED_ON_A_PAGE = 18
          # Of a page, in lines of type that can be read from the back: four cards side by side, and letters of a line of one.
          LINES = 60
          LETTERS = 27

          def pages(shown, _way) = [sliced(shown).map { |_, pages| pages.length }.max, 1].max

          # Each column goes on by itself.
          def page(shown, _way, number)
            groups = sliced(shown).map { |name, pages| [name, pages[number] || []] }
            Board::Shown.new(groups: groups, beyond: 0, waiting: shown.waiting).freeze
          end

          # @param post_id [String]
          # @return [Picture, nil] the picture on one card of a value
          def picture_of(value, post_id)
            post = value["posts"].find { |each| each["id"] == post_id }
            post && Picture.from_document(post["picture"])
          end

          # Each card.
          def drawn_parts(value) = value["posts"].map { |post| post["id"] }

          # A card with a picture is like no other.
          def answered(value) = value["posts"].any? { |post| post["picture"] } ? "" : plain(value)

          def plain(value)
            cards = value["posts"].map { |post| [post["emoji"], post["text"], post["picture"] ? "(picture)" : ""] }
            return value["writing"].empty? ? "liked #{value["likes"].length}" : value["writing"] if cards.empty?

            cards.map { |parts| parts.reject(&:empty?).join(" ") }.join("; ")
          end

          private

          # @return [Array<Array(String, Array<Array>)>] columns, and the cards of each page
          def sliced(shown)
            columns = shown.groups.length
            most = columns == 1 ? ON_A_PAGE : SORTED_ON_A_PAGE / columns
            shown.groups.map do |name, cards|
              [name, pages_by_room(cards, most: most, room: LINES / columns) do |card|
                2 + (card.text.length / LETTERS.to_f).ceil
              end]
            end
          end
        end
      end
    end
  end
end

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

          def pages(shown, _way) = shown.groups.map { |_, cards| pages_of(cards.length, in_a_column(shown)) }.max

          # Each column goes on by itself.
          def page(shown, _way, number)
            each = in_a_column(shown)
            groups = shown.groups.map { |name, cards| [name, cards.drop(number * each).first(each)] }
            Board::Shown.new(groups: groups, beyond: 0, waiting: shown.waiting).freeze
          end

          # @param post_id [String]
          # @return [Picture, nil] the picture on one card of a value
          def picture_of(value, post_id)
            post = value["posts"].find { |each| each["id"] == post_id }
            post && Picture.from_document(post["picture"])
          end

          def plain(value)
            cards = value["posts"].map { |post| [post["emoji"], post["text"], post["picture"] ? "(picture)" : ""] }
            return value["writing"].empty? ? "liked #{value["likes"].length}" : value["writing"] if cards.empty?

            cards.map { |parts| parts.reject(&:empty?).join(" ") }.join("; ")
          end

          private

          # How many cards of one column there is room for on a page.
          def in_a_column(shown) = shown.groups.one? ? ON_A_PAGE : SORTED_ON_A_PAGE / shown.groups.length
        end
      end
    end
  end
end

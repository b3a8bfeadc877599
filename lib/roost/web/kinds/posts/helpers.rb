# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module Posts
        # What the views of cards call.
        module Helpers
          # What a card that was given is called in a page.
          # @param card [#key] nil where nobody is to know it
          def card_id(card, slide) = card.key && card_name(card.key, slide)

          # @param key [String] of a card, as Core knows it
          def card_name(key, slide) = AnswerPictures.name(slide.id, key)
        end
      end
    end
  end
end

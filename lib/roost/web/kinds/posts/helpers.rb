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

          # The address of the picture on a card that was given.
          # @param width [Integer, nil] in pixels, nil as it is
          def card_picture(card, slide, width: nil)
            given(slide, card.key.to_i, post: card.key[/\d+\z/].to_i, version: card.picture.file[0, 8], width: width)
          end

          # A card as it is drawn on: its picture, or its words in large type.
          # @return [String] SVG in units of Core::Drawing::Sheet
          def card_under(card, slide)
            if card.picture
              return %(<image href="#{Rack::Utils.escape_html(card_picture(card, slide))}" width="100%" height="100%"/>)
            end

            [card.emoji, *lines(card.text)].reject(&:empty?).each_with_index.map do |line, at|
              %(<text x="#{MARGIN}" y="#{MARGIN + ((at + 1) * LINE)}" font-size="#{LETTER}" font-family="sans-serif" ) +
                %(fill="#{Core::Drawing::Sheet::COLOURS["ink"]}">#{Rack::Utils.escape_html(line)}</text>)
            end.join
          end

          # In units of the sheet; letters of a line, and of one of scripts whose letters are as wide as high.
          MARGIN = 60
          LETTER = 44
          LINE = 58
          LETTERS = 38
          WIDE_LETTERS = 24
          WIDE = /[\u{2E80}-\u{10FFFF}]/
          private_constant :MARGIN, :LETTER, :LINE, :LETTERS, :WIDE_LETTERS, :WIDE

          private

          # Words that stay whole, but for one that is longer than a line.
          def lines(text)
            most = text.match?(WIDE) ? WIDE_LETTERS : LETTERS
            text.scan(/\S.{0,#{most - 2}}\S(?=\s|\z)|\S{1,#{most}}/)
          end
        end
      end
    end
  end
end

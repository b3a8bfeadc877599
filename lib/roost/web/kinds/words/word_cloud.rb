# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module Words
        # Words as a cloud in SVG text. Safe to put into a page as it is.
        class WordCloud
          # Part of the type's size between the middle of a word's box and its base line.
          BASE = 0.34

          # @param words [Array<Core::Tallies::Cloud::Word>]
          def initialize(words)
            @words = words
          end

          # @return [String]
          def svg
            label = escape(@words.map { |word| "#{word.text} #{word.count}" }.join(", "))
            body = @words.map { |word| text(word) }.join
            box = Core::Kinds::Words::Tallying::CLOUD
            %(<svg class="cloud" viewBox="0 0 #{box[:width]} #{box[:height]}" role="img" aria-label="#{label}">#{body}</svg>)
          end

          private

          def escape(text) = Rack::Utils.escape_html(text)

          def text(word)
            y = (word.y + (word.size * BASE)).round(1)
            %(<text data-word="#{escape(word.key)}" x="#{word.x}" y="#{y}" font-size="#{word.size}">) +
              %(<title>#{word.count}</title>#{escape(word.text)}</text>)
          end
        end
      end
    end
  end
end

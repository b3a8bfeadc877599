# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Writing
        # Writes a line, a paragraph, an equation (LaTeX), or several boxes with a label each. Never
        # marked automatically. A value is {"text" => "…"}, with boxes also {"boxes" => ["…"]}, of
        # which the text is all in one.
        class Prompt < Core::Prompt
          # parts:: [Part], one a box, or just one
          Tally = Struct.new(:answered, :parts, keyword_init: true)
          # label:: of the box, or nil; grouping:: Tallies::Grouping of what stands in it, and
          # groups:: those of it that are to be seen; key_terms:: Tallies::KeyTerms of that
          Part = Struct.new(:label, :grouping, :groups, :key_terms, keyword_init: true)

          def self.label = "Writing"
          def self.place = 3
          def self.usual_seconds = 90
          def self.purpose = "Write a line, a paragraph or an equation"
          def self.charted? = true
          def self.on_the_spot = { "A line" => { "size" => "line" }, "A paragraph" => {} }

          def self.blank
            { "size" => "paragraph", "word_limit" => nil, "boxes" => [], "samples" => [] }
          end

          def instruction
            return "Write an equation" if equation?
            return "Fill the boxes#{limit_words}" if boxes.any?

            "#{line? ? "Write a line" : "Write your answer"}#{limit_words}"
          end

          def line? = settings["size"] == "line"

          def word_limit = settings["word_limit"]

          def equation? = settings["size"] == "equation"

          # @return [Array<String>] labels of the boxes; empty when there is just one
          def boxes = equation? ? [] : settings["boxes"]

          def all_in_one(texts)
            boxes.zip(texts).reject { |_, text| text.empty? }.map { |label, text| "#{label}: #{text}" }.join("\n")
          end

          private

          def limit_words
            return "" unless word_limit

            ", at most #{word_limit} #{word_limit == 1 ? "word" : "words"}#{" each" if boxes.any?}"
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    # Whether a text that was typed is one that is accepted (rules.md, marks of gaps): after
    # NFKC, case folding and squeezing of spaces; accents matter or not; one slip of the
    # finger allowed in words of five letters or more, never in numbers.
    module Likeness
      LETTERS_FOR_A_SLIP = 5

      # @param accepted [Array<String>]
      # @return [Boolean]
      def self.accepted?(typed, accepted, accents:, slip:)
        given = plain(typed, accents: accents)
        accepted.any? do |each|
          wanted = plain(each, accents: accents)
          given == wanted || (slip && slip?(given, wanted))
        end
      end

      # @return [String] for comparing
      def self.plain(text, accents: true)
        folded = text.unicode_normalize(:nfkc).downcase(:fold).gsub(/[[:space:]]+/, " ").strip
        accents ? folded : folded.unicode_normalize(:nfd).gsub(/\p{Mn}/, "")
      end

      def self.slip?(given, wanted)
        return false if wanted.match?(/\d/) || wanted.scan(/[[:alpha:]]/).length < LETTERS_FOR_A_SLIP

        (given.length - wanted.length).abs <= 1 && distance(given, wanted) <= 1
      end
      private_class_method :slip?

      # Damerau–Levenshtein, optimal string alignment: insertions, deletions, substitutions
      # and exchanges of neighbours.
      # @return [Integer]
      def self.distance(one, other)
        before = nil
        row = (0..other.length).to_a
        one.each_char.with_index(1) do |char, i|
          fresh = [i]
          other.each_char.with_index(1) do |second, j|
            cost = char == second ? 0 : 1
            best = [row[j] + 1, fresh[j - 1] + 1, row[j - 1] + cost].min
            exchanged = i > 1 && j > 1 && char == other[j - 2] && one[i - 2] == second
            fresh << (exchanged ? [best, before[j - 2] + 1].min : best)
          end
          before = row
          row = fresh
        end
        row.last
      end
    end
  end
end

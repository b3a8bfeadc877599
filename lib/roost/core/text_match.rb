# frozen_string_literal: true

module Roost
  module Core
    # Whether a text that was typed is one that is accepted (rules.md, marks of gaps): after
    # NFKC, case folding and squeezing of spaces; accents matter or not; one slip of the
    # finger allowed in words of five letters or more, never in numbers.
    module TextMatch
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

        near?(given, wanted)
      end
      private_class_method :slip?

      # Whether the distance after Damerau and Levenshtein (insertions, deletions, substitutions,
      # exchanges of neighbours) is at most one. What both begin and end with alike is left out of
      # account; one step can only have changed what is between.
      def self.near?(one, other)
        return false if (one.length - other.length).abs > 1

        start = common(one, other)
        ending = common(one[start..].reverse, other[start..].reverse)
        left, right = [one, other].map { |text| text[start..(-ending - 1)] }
        [left.length, right.length].max <= 1 || (left.length == 2 && left.reverse == right)
      end

      # @return [Integer] how many characters both begin with alike
      def self.common(one, other)
        length = [one.length, other.length].min
        (0...length).find { |place| one[place] != other[place] } || length
      end
      private_class_method :common
    end
  end
end

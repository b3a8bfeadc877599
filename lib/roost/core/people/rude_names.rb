# frozen_string_literal: true

module Roost
  module Core
    # Tells names that don't belong on a class screen: whole words of a list and known compounds, in
    # whatever letters and spacing they come. Names that merely contain such letters pass.
    class RudeNames
      # Given names and surnames that stand in lists of rude words.
      PASSED = %w[cumming cummings guro hooker lolita poon quim shota].freeze
      # Rude wherever they stand in a word, but for these.
      ROOTS = %w[arsehole asshole cunt dildo faggot fuck jizz nigga nigger penis pussy vagina whore].freeze
      INNOCENT = /scunthorp|penistone/
      # Rude by themselves and together with what often goes before or after them.
      STEMS = { %w[arse ass butt cock dick piss tit] => /head|face|hole|hat|bag|wad|wipe|sucker|licker|lover|brain|breath|weed/,
                %w[bitch shit slut twat
                   wank] => /head|face|hole|hat|bag|wad|wipe|er|ers|y|ing|ed|boy|girl|man|king|lord|show|storm|bird/,
                %w[porn] => /os?|star|stars|hub|king|lord/ }.freeze
      STEM_WORDS = STEMS.keys.flatten.freeze
      HEADS = /(?:#{%w[big bull chicken dog dumb fat hard holy horse huge jack kick king lame lard lick little lord mega old smart
                       suck super the ugly].join("|")})/
      # Spellings that lists leave out.
      SPELT = %w[arse biatch fck fcuk fuk fuq hitler kunt nazi nazis phuk sht stfu wtf].freeze

      # Letters and signs that look like others (compare Unicode Technical Standard 39, confusables).
      LOOKALIKES = { "а" => "a", "в" => "b", "е" => "e", "к" => "k", "м" => "m", "н" => "h", "о" => "o", "р" => "p", "с" => "c",
                     "т" => "t", "у" => "y", "х" => "x", "і" => "i", "ѕ" => "s", "ј" => "j", "ԁ" => "d", "α" => "a", "β" => "b",
                     "ε" => "e", "ι" => "i", "κ" => "k", "ν" => "v", "ο" => "o", "ρ" => "p", "τ" => "t", "υ" => "u", "χ" => "x",
                     "ı" => "i", "ł" => "l", "ø" => "o", "đ" => "d", "ƒ" => "f", "¢" => "c", "€" => "e", "£" => "l", "@" => "a",
                     "$" => "s", "!" => "i", "|" => "i", "ß" => "ss", "æ" => "ae" }.freeze
      DIGITS = { "0" => "o", "2" => "z", "3" => "e", "4" => "a", "5" => "s", "6" => "g", "7" => "t", "8" => "b",
                 "9" => "g" }.freeze
      # What a 1 may stand for.
      ONE = %w[i l].freeze
      LONGEST = 120

      # @param words [Enumerable<String>] of a list, in small letters; those of several words among them
      def initialize(words)
        single, phrases = words.map { |word| RudeNames.folded(word) }.reject(&:empty?).partition { |word| !word.include?(" ") }
        @words = /\A(?:#{stretched((single - PASSED) | SPELT | STEM_WORDS)})(?:e?[sz])?\z/
        @phrases = phrases.map { |phrase| " #{phrase} " }
        @compounds = STEMS.map { |stems, tails| /\A#{HEADS}?(?:#{stretched(stems)})(?:#{tails}|s)?\z/ }
        @inside = [/#{stretched(ROOTS)}/, *@compounds].freeze
      end

      # Whether a name had better not be shown.
      # @param name [String]
      def include?(name)
        ONE.any? do |one|
          tokens = RudeNames.folded(name[0, LONGEST], one).split
          text = " #{tokens.join(" ")} "
          @phrases.any? { |phrase| text.include?(phrase) } || tokens.any? { |token| rude?(token) } || split_up?(tokens)
        end
      end

      # A name in plain small letters, a space between words; dots and dashes between words are spaces,
      # a star stays for the letter it hides.
      def self.folded(name, one = ONE.first)
        text = name.unicode_normalize(:nfkc).downcase.gsub(/\p{Cf}/, "").unicode_normalize(:nfd).gsub(/\p{M}/, "")
        text = text.gsub(/[^a-z0-9\s*]/) { |sign| LOOKALIKES.fetch(sign, sign) }
        text = text.gsub(/[a-z0-9*]+/) { |word| word.match?(/[a-z]/) ? word.tr("1", one).gsub(/\d/, DIGITS) : word }
        text.gsub(/[^\p{L}\p{So}0-9*]+/, " ").strip
      end

      private

      def rude?(token)
        return false if PASSED.include?(token) || token.match?(INNOCENT)
        return hidden?(token) if token.include?("*")

        drawn_out = ['\\1', '\\1\\1'].map { |once| token.gsub(/(.)\1{2,}/, once) }
        [token, *drawn_out].uniq.any? { |each| each.match?(@words) || inside?(each) }
      end

      def inside?(token) = @inside.any? { |pattern| token.match?(pattern) }

      # With each star for some letter.
      def hidden?(token)
        hiding = /\A#{token.chars.map { |letter| letter == "*" ? "[a-z]" : Regexp.escape(letter) }.join}\z/
        (ROOTS + STEM_WORDS).any? { |word| word.match?(hiding) }
      end

      # Short pieces that stand beside one another: "f u c k"; of more letters only what is rude anywhere, as
      # in "fu ck", since many names are short.
      def split_up?(tokens)
        together(tokens, 1).any? { |letters| rude?(letters) } ||
          together(tokens, 3).any? { |word| word.length > 3 && inside?(word) && !word.match?(INNOCENT) }
      end

      # Neighbours of so few letters, as one word.
      def together(tokens, most)
        tokens.chunk_while { |*two| two.all? { |each| each.length <= most } }.filter_map { |few| few.join if few.length > 1 }
      end

      # Letters drawn out: in a word of more than three letters each may stand more often.
      # @param words [Array<String>]
      # @return [String] source of a Regexp
      def stretched(words)
        words.map do |word|
          if word.length > 3 && word.match?(/\A[a-z]+\z/)
            word.chars.chunk_while(&:==).map do |run|
              "#{run.first}{#{run.length},}"
            end.join
          else
            Regexp.escape(word)
          end
        end.join("|")
      end
    end
  end
end

# frozen_string_literal: true

require "set"

module Roost
  module Core
    # Tells what doesn't belong on a class screen: whole words of a list and known compounds, in whatever letters and spacing they
    # come. Names that merely contain such letters pass. Source: rules.md, "Names".
    class RudeNames
      # Names that pass, in plain letters: that are rude words or look like some; such that pass only beside another name; others.
      Names = Struct.new(:honest, :beside, :others, keyword_init: true) do
        def known?(word) = honest.include?(word) || others.include?(word)
      end
      Names::NONE = Names.new(honest: Set[], beside: Set[], others: Set[]).freeze

      # Rude wherever they stand in a word.
      ROOTS = %w[arsehole arschloch asshole cunt dildo faggot fuck jizz kurwa motherf nigga nigger penis pussy vagina
                 whore].freeze
      # Rude by themselves and together with what often goes before or after them.
      STEMS = { %w[arse ass butt cock dick piss prick tit] =>
                %w[head face hole hat bag wad wipe sucker licker lover brain breath weed],
                %w[bitch shit slut twat wank] =>
                %w[head face hole hat bag wad wipe er ers y ing ed boy girl man king lord show storm bird],
                %w[porn] => %w[o os star stars hub king lord] }.freeze
      TAILS = STEMS.values.flatten.uniq.freeze
      HEADS = %w[big bull chicken dog dumb eat fat hard holy hot horse huge i jack kick king lame lard lick little long lord love
                 me mega my nice old small smart suck super the tiny ugly your].freeze
      # The worst, which are known by their sound, with two letters swapped and without a vowel as well.
      WORST = (ROOTS + STEMS.keys.flatten +
               %w[bastard blyat bollock bollocks boob boobs bullshit cazzo clit connard fotze hitler
                  hure merde mierda nazi pizda puta putain scheisse slag suka tits wichser]).freeze
      # Spellings that lists leave out.
      SPELT = %w[biatch boobies fck fuk paki phuk retard retarded sht stfu wtf блядь блять пизда сука хуй].freeze
      ENDINGS = ["", "s", "es", "z"].freeze
      # Written without spaces, so that a word may stand anywhere.
      SOLID = /\A[\p{Han}\p{Hiragana}\p{Katakana}\p{Hangul}\p{Thai}]{3,}\z/
      WHOLE = %i[word worst stem].freeze
      SOUNDS = %i[worst stem].freeze
      LONGEST = 120
      # So many pieces of a name are put together, at most.
      NEIGHBOURS = 3

      # @param words [Enumerable<String>] of lists; those of several words among them
      # @param names [Names] that pass
      # @param looks [#call] takes a character, gives what it looks like
      def initialize(words, names: Names::NONE, looks: :itself.to_proc)
        @letters = Letters.new(looks)
        @names = names
        @words = Tree.new
        @inside = Tree.new
        words.each { |word| list(@letters.plain(word)) }
        SPELT.each { |word| @words.add(word, :word) }
        WORST.each { |word| worst(word) }
        ROOTS.each { |word| @inside.add(word, :word) }
        STEMS.each { |stems, tails| stems.product(tails) { |stem, tail| @words.add(stem + tail, :stem) } }
      end

      # Whether a name had better not be shown.
      # @param name [String]
      def include?(name)
        words = @letters.plain(name[0, LONGEST])[0, LONGEST].split
        pieces = words.map { |word| word.scan(/[\p{L}\p{M}\p{N}*]+/) }
        words.zip(pieces).any? { |word, parts| whole?(word, words) || hyphened?(word, parts, words) } ||
          beside?(pieces.flatten) || split_up?(pieces.flatten) || split_up?(words)
      end

      private

      def list(word)
        return @words.add(word.gsub(/[\s-]+/, ""), :phrase) if word.match?(/[\s-]/)

        (word.match?(/\A[a-z]+\z/) ? ENDINGS : [""]).each { |ending| @words.add(word + ending, :word) }
        @inside.add(word, :word) if word.match?(SOLID)
      end

      def worst(word)
        ENDINGS.each { |ending| @words.add(word + ending, STEMS.keys.flatten.include?(word) ? :stem : :worst) }
        return if word.length < 4

        swapped = (word.length - 1).times.map { |at| word.dup.tap { |each| each[at, 2] = each[at, 2].reverse } }
        [*swapped, word.sub(/(?<=.)[aeiou]/, "")].each { |each| @words.add(each, :word) }
      end

      def hyphened?(word, parts, words)
        return false if parts == [word] && !word.include?("*")

        joined = [parts.join.delete("*"), word.delete("._'’·-")]
        parts.any? { |part| whole?(part, words) } || joined.any? { |letters| in_pieces?(word, letters) }
      end

      # Honest names of two parts are short; a longer word in pieces is none.
      def in_pieces?(word, joined)
        joined != word && !name?(word) && in_all?(joined, joined.length > 4 ? [*WHOLE, :phrase] : [*SOUNDS, :phrase])
      end

      # One word by itself.
      def whole?(word, words)
        return false if !word.match?(/[\p{L}\p{M}]/) || name?(word, words)

        forms(word).any? { |form| in_all?(form, WHOLE) } || headed?(word) || inside?(word)
      end

      # A name as it is written; some only beside another that is none of these.
      def name?(word, words = nil)
        return true if @names.honest.include?(word)
        return false unless words && @names.beside.include?(word)

        others = words.reject { |each| @names.beside.include?(each) }
        others.any? { |each| @names.known?(each) } && others.none? { |each| HEADS.include?(each) || TAILS.include?(each) }
      end

      # As it is, with letters that are drawn out once or twice, and without digits or x around it.
      def forms(word)
        bare = word.gsub(/\A[\d_x]+|[\d_x]+\z/, "")
        drawn = ['\\1', '\\1\\1'].map { |once| word.gsub(/(.)\1{2,}/, once) }
        [word, *drawn, bare].uniq.grep(/\p{L}/)
      end

      # A known compound with what often goes before it.
      def headed?(word)
        HEADS.any? do |head|
          word.start_with?(head) && word.length > head.length + 2 && in_all?(word.delete_prefix(head), %i[stem])
        end
      end

      def in_all?(form, kinds) = @words.in?(@letters.readings(form), kinds, worst: SOUNDS)

      def inside?(word) = @inside.in?(@letters.readings(word), %i[word], anywhere: true)

      # Words that are rude together: "blow job".
      def beside?(pieces)
        (2..NEIGHBOURS).any? do |count|
          pieces.each_cons(count).any? { |few| in_all?(few.join, %i[phrase]) }
        end
      end

      # Short pieces that stand beside one another: "f u c k"; of more letters only what is rude anywhere, as in "fu ck", since
      # many names are short.
      def split_up?(pieces)
        together(pieces, 1).any? { |letters| whole?(letters, []) } ||
          together(pieces, 3).any? { |word| word.length > 3 && inside?(word) && !name?(word) }
      end

      # Neighbours of so few letters, as one word.
      def together(pieces, most)
        pieces.chunk_while { |*two| two.all? { |each| each.length <= most } }.filter_map { |few| few.join if few.length > 1 }
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Tallies
      # Words that several answers have in common (rules.md, tallies): in at least three of
      # them, less a list of words that say little.
      class KeyTerms
        LEAST = 3
        MOST = 20
        # Characters of each text that are looked at.
        READ = Grouping::READ
        WORD = /[[:alpha:]][[:alpha:]'’-]+/
        STOP = %w[a about after all also am an and any are as at be because been before being but by can can't could did do does
                  doesn't don't for from get go goes had has have he her here him his how i if in into is isn't it it's its just
                  like more most my no not now of off on one only or other our out over she so some than that that's the their
                  them then there they they're this those through to too up us very was we were what when where which while who
                  why will with would you your].to_h { |word| [word, true] }.freeze

        # @return [Array<Array(String, Integer)>] words with the number of answers, commonest first
        attr_reader :terms

        # @param texts [Array<String>]
        # @param before [KeyTerms, nil] of the moment before: texts it knows aren't read again
        def initialize(texts, before: nil)
          @words = texts.uniq.to_h { |text| [text, before&.words_of(text) || read(text)] }
          counts = texts.flat_map { |text| @words[text] }.tally.select { |_, count| count >= LEAST }
          @terms = counts.sort_by { |word, count| [-count, word] }.first(MOST).freeze
          freeze
        end

        protected

        def words_of(text) = @words[text]

        private

        def read(text) = TextMatch.plain(text[0, READ]).tr("’", "'").scan(WORD).uniq.reject { |word| STOP.key?(word) }
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Exchange
    # The rules of a question as they stand in one cell of a sheet: words with commas between. What a
    # teacher wrote stands in quotes, a quote in it doubled, so that it may hold anything:
    #
    #     shuffled, in "°C", boxes "Before / after" / "I think"
    class RowRules
      include Enumerable

      QUOTED = /"(?:[^"]|"")*"/
      RULE = /(?:#{QUOTED}|[^",;])+/
      # Without quotes, as people write it, a text goes up to the next stroke with room around it.
      TEXT = %r{\G\s*(?:/\s+)?(#{QUOTED}|(?:(?!\s/\s).)+)}

      # @return [String] what a teacher wrote, in quotes
      def self.quote(text) = %("#{text.gsub('"', '""')}")

      # @return [String] the same without them; what is in none stays as it is
      def self.unquote(text) = text.match?(/\A#{QUOTED}\z/o) ? text[1..-2].gsub('""', '"') : text

      # @param cell [String]
      def self.read(cell) = new(cell.scan(RULE).map(&:strip).reject(&:empty?))

      # @param rules [Array<String>]
      def initialize(rules)
        @rules = rules
      end

      # The rules in small letters, for those that are words of our own.
      def each(&block) = @rules.map(&:downcase).each(&block)

      # @return [MatchData, nil] of the first rule that is like that
      def match(pattern)
        each { |rule| (found = rule.match(pattern)) && (return found) }
        nil
      end

      # What a teacher wrote after a word of ours, "" when nothing.
      # @return [String]
      def text(word) = RowRules.unquote(after(word))

      # The same where there may be several, with strokes between.
      # @return [Array<String>]
      def texts(word) = after(word).scan(TEXT).flatten.map { |text| RowRules.unquote(text.strip) }.reject(&:empty?)

      private

      def after(word)
        rule = @rules.find { |each| each.downcase.start_with?("#{word} ") }
        rule ? rule[word.length..].strip : ""
      end
    end
  end
end

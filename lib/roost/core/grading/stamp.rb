# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # Words that a teacher stamps answers with, and a mark that may come with them. Typed a line each: "Well argued = 1".
      #
      # mark:: as HandMark writes it, or nil
      Stamp = Struct.new(:id, :words, :mark, keyword_init: true) do
        self::LIMIT = 4_000 # characters of all
        self::MOST = 30
        self::WORDS_LIMIT = 120
        self::TOO_MANY = "You can have at most #{self::MOST} stamps.".freeze
        self::TOO_LONG = "A stamp has at most #{self::WORDS_LIMIT} characters.".freeze
        self::MARKS = { "0" => "0", "1/4" => "1/4", "¼" => "1/4", "0.25" => "1/4", "1/2" => "1/2", "½" => "1/2", "0.5" => "1/2",
                        "3/4" => "3/4", "¾" => "3/4", "0.75" => "3/4", "1" => "1" }.freeze
        self::NO_MARK = "“%s”: the mark of a stamp is 0, 1/4, 1/2, 3/4 or 1."

        # @param text [Object] as typed
        # @return [Reading] of Array of Stamp, without ids
        def self.read(text)
          Text.read(text, limit: self::LIMIT, what: "The list of stamps").and_then do |typed|
            lines = typed.lines.map(&:strip).reject(&:empty?).uniq
            next Reading.refused(self::TOO_MANY) if lines.length > self::MOST

            lines.reduce(Reading.ok([])) { |so_far, line| so_far.and_then { |all| line(line).map { |stamp| [*all, stamp] } } }
          end
        end

        def self.line(line)
          words, sign, mark = line.rpartition(/\s=\s/)
          words = line if sign.empty?
          return Reading.refused(self::TOO_LONG) if words.strip.length > self::WORDS_LIMIT

          known = self::MARKS[mark.strip.tr(",", ".")]
          return Reading.refused(format(self::NO_MARK, line[0, 60])) unless sign.empty? || known

          Reading.ok(new(words: words.strip, mark: (known unless sign.empty?)).freeze)
        end
        private_class_method :line

        # As it is typed.
        def typed = mark ? "#{words} = #{mark}" : words
      end
    end
  end
end

# frozen_string_literal: true

require "zlib"

module Roost
  module Core
    # Reads text that a person or a device sent: valid UTF-8, NFC, without control
    # characters, ends trimmed, inner spaces kept. Bounded before it is worked on: bytes,
    # then characters, then marks a letter; after that everything is linear in its length.
    module Text
      # C0 and C1 controls but tab and newline, and the characters that turn the
      # direction of what follows.
      CONTROLS = /[\u0000-\u0008\u000B-\u001F\u007F-\u009F\u202A-\u202E\u2066-\u2069\uFEFF]/

      # Marks that stand on the letter before them. Putting n of them into order takes n² steps
      # (Unicode Standard Annex 15), and no script needs more than a few on one letter.
      MOST_MARKS = 4
      TOO_MANY_MARKS = /(\p{M}{#{MOST_MARKS}})\p{M}+/
      # A letter as NFC is at most this many characters decomposed (a Hangul syllable, or a Latin
      # letter with three marks), and none is longer in bytes than twice that.
      DECOMPOSED = 4
      BYTES = 2 * DECOMPOSED

      # @param raw anything; what is not text is refused
      # @param limit [Integer] most characters
      # @param what [String] names the thing in the refusal, as in "The heading"
      # @return [Reading] of a String, possibly empty
      def self.read(raw, limit:, what:, lines: true)
        return Reading.ok("") if raw.nil?
        return Reading.refused("#{what} is not text.") unless raw.is_a?(String)
        return too_long(what, limit) if raw.bytesize > limit * BYTES

        text = raw.dup.force_encoding(Encoding::UTF_8)
        return Reading.refused("#{what} is not readable text.") unless text.valid_encoding?
        return too_long(what, limit) if text.length > limit * DECOMPOSED

        text = text.gsub("\r\n", "\n").tr("\r", "\n").gsub(CONTROLS, "").gsub(TOO_MANY_MARKS, '\\1').unicode_normalize(:nfc)
        text = text.gsub(/\s+/, " ") unless lines
        text = text.strip
        text.length > limit ? too_long(what, limit) : Reading.ok(text)
      end

      # A short name for a text, with letters and digits alone; two may share one, by a chance of one in four thousand
      # million.
      def self.tag(text) = Zlib.crc32(text).to_s(36)

      # How many words a reader has before them.
      def self.words(text) = text.to_s.scan(/[[:alnum:]][[:alnum:]'’-]*/).length

      # The same for how long reading takes: a formula counts as four words (rules.md, points).
      def self.reading_words(text)
        formulas = text.to_s.scan(Formula::PATTERN).length
        words(formulas.zero? ? text : text.gsub(Formula::PATTERN, " ")) + (formulas * Formula::WORDS)
      end

      def self.too_long(what, limit)
        Reading.refused("#{what} is too long: #{limit.to_s.reverse.scan(/\d{1,3}/).join(" ").reverse} characters is the most.")
      end
      private_class_method :too_long
    end
  end
end

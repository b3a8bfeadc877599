# frozen_string_literal: true

module Roost
  module Exchange
    # The text of a page as people would write it, where a file says it with signs of its own: letters
    # set as one (ﬁ), accents set beside their letter (caf´e), places to break a word.
    module PageText
      # Adobe's places for letters set as one, in fonts that have no names for them.
      PRIVATE = { "\uF001" => "fi", "\uF002" => "fl", "\uF6BE" => "j" }.freeze
      LIGATURES = /[\uFB00-\uFB06]/
      ACCENTS = { "´" => "\u0301", "¨" => "\u0308", "ˆ" => "\u0302", "˜" => "\u0303", "˚" => "\u030A", "ˇ" => "\u030C" }.freeze
      APART = /([´¨ˆ˜˚ˇ])\s?([[:alpha:]])/
      SILENT = /[\u00AD\u200B-\u200D\uE000-\uF8FF\uFFFD]/

      # @param text [String]
      # @return [String]
      def self.plain(text)
        text.gsub(LIGATURES) { |letters| letters.unicode_normalize(:nfkc) }
            .gsub(/[\uF001\uF002\uF6BE]/, PRIVATE)
            .gsub(APART) { "#{Regexp.last_match(2).tr("ıȷ", "ij")}#{ACCENTS.fetch(Regexp.last_match(1))}" }
            .gsub(SILENT, "").tr("\u00A0\u2009\u202F", " ").unicode_normalize(:nfc)
      end
    end
  end
end

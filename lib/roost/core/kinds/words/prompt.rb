# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # Gives one to five single words or short phrases. Never keyed. A value is
        # {"words" => ["…", …]}.
        class Prompt < Core::Prompt
          MOST = (1..5)
          WORD_LIMIT = 40
          ENDS = /\A[[:punct:]\s]+|[[:punct:]\s]+\z/

          def self.label = "Words"
          def self.place = 4
          def self.usual_seconds = 30
          def self.purpose = "Give a few single words"
          def self.charted? = true
          def self.on_the_spot = { "Three words" => {}, "One word" => { "most" => 1 } }
          def self.blank = { "most" => 3, "samples" => [] }

          # How two words are compared: NFKC, case folding, without punctuation at the ends.
          def self.same(word) = word.unicode_normalize(:nfkc).downcase(:fold).gsub(/[[:space:]]+/, " ").gsub(ENDS, "")

          def instruction = most == 1 ? "Give one word" : "Give up to #{most} words"

          def most = settings["most"]
        end
      end
    end
  end
end

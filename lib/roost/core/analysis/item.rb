# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # How good one keyed question was, over the students who reached it (rules.md, how good the question was).
      #
      # students::       how many reached it
      # facility::       mean mark, Rational
      # discrimination:: correlation of the mark with the rest of the set, Float; nil of fewer than Items::LEAST, or where one
      #                  of both is the same for all
      # options::        Array of Option, as they were given, empty where the kind has none
      # flags::          Array of FLAGS' keys, the gravest first
      Item = Struct.new(:slide, :students, :facility, :discrimination, :options, :flags, keyword_init: true) do
        # One answer that could be picked. thirds:: how many of the lower, middle and upper third of the class picked it (Float:
        # who stands between two thirds counts for both in part); right:: whether it is in the key; many:: how many in all
        self::Option = Struct.new(:option, :right, :many, :thirds, keyword_init: true)
      end

      # In plain words, with one thing to do about it.
      Item::FLAGS = {
        check_key: ["Check the key", "Those who did well on the rest chose something else. See whether the key is right."],
        rushed: ["Rushed",
                 "Most answered in less than a fifth of the time, and fewer were right than by guessing. Ask it again."],
        hard: ["Hard", "Three in ten or fewer had it. Teach it again, then bring it back."],
        no_difference: ["Does not tell apart", "Who knows the rest is hardly more often right here. Read it as a student would."],
        easy: ["Almost everybody knew it", "It can go, or be made harder."]
      }.freeze
    end
  end
end

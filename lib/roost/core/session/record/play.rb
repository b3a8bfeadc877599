# frozen_string_literal: true

module Roost
  module Core
    module Session
      # One time that a game round is played in a session: the first, and each time again, in whatever style.
      #
      # section_id:: of the round; slide_ids:: of all its slides; number:: which time it is, from 1
      # style, speed, goal:: see Game::Style
      # answering:: one of WAYS; talk:: seconds for a team to talk before a question opens
      # began_at:: epoch seconds
      Play = Struct.new(:section_id, :number, :slide_ids, :style, :speed, :goal, :answering, :talk, :began_at,
                        keyword_init: true) do
        # How those who play in teams answer.
        self::WAYS = { "alone" => "Each answers alone", "talk" => "Talk first, then each answers alone",
                       "one" => "One answer for the team, set on any of its devices" }.freeze
        self::TALKS = (10..300)
        self::USUAL_TALK = 45

        # @return [Integer] seconds, as many as teams may talk
        def self.talk(seconds) = seconds.clamp(self::TALKS.min, self::TALKS.max)

        # @return [Game::Style] in which it is played
        def played = Game::Style.make(style, speed: speed, goal: goal)

        # Whether any device of a team sets the one answer that all of it have.
        def as_one? = answering == "one"

        # Whether teams talk before a question opens.
        def talks? = answering == "talk"
      end
    end
  end
end

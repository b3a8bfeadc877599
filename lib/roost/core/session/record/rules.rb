# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Which version of the rules a session runs under. It is frozen with the session, so that the results of earlier sessions
      # stay as they were when a rule changes.
      #
      # 0:: sessions of before a question could be passed over
      # 1:: reading time lay within the time limit; late answers earned their mark; blanks of a sitting that was not handed in
      #     were not reached
      # 2:: rules.md as it stands
      Rules = Struct.new(:version) do
        # Whether a question that nobody could have answered counts for nobody.
        def passing_over? = version >= 1

        # Whether in a game round the time to read stands before the time limit, not within it.
        def reading_first? = version >= 2

        # Whether an answer that came late earns its mark outside of game rounds.
        def late_earns? = version < 2

        # Whether the share of a sitting that has ended is of all questions it was given.
        def whole_sittings? = version >= 2

        # Whether practice questions help to choose which attempt counts.
        def practice_chooses? = version < 2

        # Whether whoever answers with a keypad was shown the question when it opened.
        def keypads_see_wall? = version >= self.class::WALL

        # Whether a student's copy tells of the room's questions only what the room was told.
        def copies_follow_room? = version >= 2

        self::WALL = 2
        self::CURRENT = new(2).freeze
      end
    end
  end
end

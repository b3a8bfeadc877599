# frozen_string_literal: true

module Roost
  module Core
    module Session
      # One participant in one session, as the other parts of the core see it.
      # `here` is false when the device left or its window is in the background. `student_id` is the
      # person on a class list it belongs to, `team_id` its team; nil for none. `extra` is what was asked
      # besides the name, or "". `away_since` is when it left (epoch seconds), nil while it is here; `came_at` when it
      # came in. `keypad` is the number of a handheld keypad, or nil. `time_factor` says how much more time than others it
      # has (Rational, 1 for most). `visited` is false of one that was made for somebody who has not come yet.
      # `forgotten` is true of one whose student's name was taken away; `board` of a team that plays at the board, without a
      # device.
      Seat = Struct.new(:id, :name, :here, :practice, :student_id, :team_id, :extra, :away_since, :came_at, :keypad,
                        :time_factor, :visited, :forgotten, :board, keyword_init: true) do
        # @return [Rational]
        def factor = time_factor || 1r
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Live
    module Audiences
      # Seats at which a board stands that grows as others write: a board of a class is large, and
      # there are as many copies of it as seats, so it goes out every few seconds at most.
      class Board < Seats
        # Where none stands, a command has to put it up.
        def wakes?(_scopes, streams) = streams.any? { |stream| stream.sent&.board }

        # What a command changed, Seats sends.
        def behind?(before, mark) = before.version == mark.version && before.board != mark.board
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Live
    module Audiences
      # Seats whose team answers as one: what one device sets, the others of its team see at once, and nobody else.
      class Team < Seats
        def wakes?(_scopes, streams) = streams.any? { |stream| stream.sent&.team_answers }

        # What a command changed, Seats sends.
        def behind(moment, streams, scopes)
          return [[], nil] unless wakes?(scopes, streams)

          mark = mark(moment)
          [streams.select { |stream| stream.sent && changed?(stream.sent, mark, stream.about.seat_id) }, mark]
        end

        private

        def changed?(before, mark, seat_id)
          before.version == mark.version && before.team_answers.to_h[seat_id] != mark.team_answers.to_h[seat_id]
        end
      end
    end
  end
end

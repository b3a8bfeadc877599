# frozen_string_literal: true

module Roost
  module Core
    module Session
      module Views
        # The clock of an open question, for a seat with that much time.
        #
        # reading_until:: epoch seconds; nil where reading has no time of its own
        # thinking:: seconds in which the sun sinks
        Clock = Struct.new(:reading_until, :thinking) do
          # @param factor [Rational] of the seat's time
          def self.of(moment, opening, factor)
            limit = (moment.slide&.prompt&.time_limit || 60) * factor.to_f
            timing = moment.reading_timing
            return new(nil, limit).freeze unless timing && opening.clock_at

            new(opening.clock_at + (timing.reading.to_f * factor.to_f), limit).freeze
          end
        end
      end
    end
  end
end

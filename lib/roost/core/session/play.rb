# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How a question is played. game:: whether for points; speed:: share of them that speed decides; rules:: Rules of the
      # session; factor:: of the seat's time
      Play = Struct.new(:game, :speed, :rules, :factor) do
        # At one's own speed, or outside of rounds: no points.
        # @param rules [Rules]
        def self.plain(rules = Rules::CURRENT) = new(false, 0r, rules, 1r)

        # @param slide [Slide]
        # @return [Clock, nil] of its question; nil where none runs
        def timing(slide)
          @timings ||= {}
          @timings.fetch(slide.id) { @timings[slide.id] = clock(slide) }
        end

        # reading:: seconds that cost nothing; thinking:: seconds after them; longest:: of both together, with extra time
        self::Clock = Struct.new(:reading, :thinking, :longest) do
          def total = reading + thinking
        end

        def clock(slide)
          limit = slide.prompt.time_limit
          return nil unless limit

          reading, thinking = game ? Game::Timing.of(slide, rules).to_a : [0, limit]
          self.class::Clock.new(reading, thinking, ((reading + thinking) * factor).to_f).freeze
        end
        private :clock

        # Whether an answer came too late to earn anything.
        def uncounted?(answer) = answer.late? && (game || !rules.late_earns?)
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How one question of a session is scored, for all who have the same time for it: a function of the prompt, an answer and
      # the times, so that a corrected key marks everything anew (rules.md).
      class Scoring
        # @param slide [Slide] with a prompt
        # @param opening [Opening, nil]
        # @param play [Play] how it is played
        # @param set_aside [Boolean] whether the question was set aside
        def initialize(slide, opening:, play:, set_aside: false)
          @slide = slide
          @prompt = slide.prompt
          @opening = opening
          @play = play
          @set_aside = set_aside
        end

        # Whether it earns points, which depend on the time that each took.
        def points? = @play.game

        # @param answer [Answer, nil]
        # @param shown_at [Float, nil] when the seat's device was sent the open prompt
        # @param worth [Worth, nil] of the answer, where that is known already
        # @return [Outcome]
        def outcome(answer, shown_at, worth = nil)
          reached = !(answer.nil? && shown_at.nil?)
          worth ||= worth(answer)
          answer = nil if worth&.blank
          if @set_aside then left_out(answer, reached)
          elsif answer.nil? then without_answer(reached)
          elsif answer.readable? then marked(answer, worth, shown_at)
          else unread(answer)
          end
        end

        # What an answer earns, however long it took.
        # @return [Rational, nil] nil where nothing is marked
        def mark(answer, worth = worth(answer))
          return nil if @set_aside || !@prompt.keyed?
          return 0r if worth.nil? || worth.blank || uncounted?(answer)

          worth.mark
        end

        # Time used, with a limit no more than that.
        # @param received_at [Float] when the answer came
        # @return [Float, nil] nil where it isn't known when the question was shown
        def seconds(received_at, shown_at)
          return nil unless shown_at

          used = [received_at - shown_at, 0].max
          timing ? [used, timing.longest].min : used
        end

        private

        def worth(answer) = (Worth.of(@prompt, answer.value) if answer&.readable?)

        def uncounted?(answer) = answer.late && @play.uncounted?(answer)

        def marked(answer, worth, shown_at)
          mark = mark(answer, worth)
          status = worth.mark && uncounted?(answer) ? late_status : worth.status
          Outcome.new(status, mark, (points(mark, answer, shown_at) if points?), answer, answer.unfinished?(@opening)).freeze
        end

        def late_status = @play.rules.late_earns? ? :wrong : :late

        def unread(answer)
          Outcome.new(:unread, mark(answer), (0 if points?), answer, !@opening&.open?).freeze
        end

        # The answer stays to be looked at.
        def left_out(answer, reached)
          Outcome.new(reached ? :set_aside : :not_reached, nil, nil, answer, answer&.unfinished?(@opening) || false).freeze
        end

        def without_answer(reached)
          return Outcome.new(:not_reached, nil, nil, nil, false).freeze unless reached

          Outcome.new(:blank, (0r if @prompt.keyed?), (0 if points?), nil, false).freeze
        end

        # Of a device that was never sent the question it is not known how long it took: then all of the time.
        def points(mark, answer, shown_at)
          used = seconds(answer.received_at, shown_at)
          used &&= used / @play.factor
          Game::Points.for(points: @prompt.points, mark: mark, seconds: used || timing&.total, time_limit: timing&.thinking,
                           free: timing&.reading || 0, speed: @play.speed)
        end

        def timing = @play.timing(@slide)
      end
    end
  end
end

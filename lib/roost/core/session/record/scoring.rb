# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How one question of a session is scored, for all who have the same time for it: the one function of prompt, answer, times,
      # style and what a teacher says, so that a corrected key marks everything anew (rules.md).
      class Scoring
        # @param slide [Slide] with a prompt
        # @param style [Game::Style] in which it is played
        # @param opening [Opening, nil] of the attempt
        # @param rules [Rules] of the session
        # @param factor [Rational] of the time that these seats have
        # @param set_aside [Boolean] whether the question was set aside
        # @param by_hand [Boolean] whether a teacher has marked answers to it: then each is marked, or waits for that
        def initialize(slide, style:, opening: nil, rules: Rules::CURRENT, factor: 1r, set_aside: false, by_hand: false)
          @slide = slide
          @prompt = slide.prompt
          @style = style
          @opening = opening
          @rules = rules
          @factor = factor
          @set_aside = set_aside
          @waits = by_hand && !@prompt.keyed?
        end

        # Whether it earns points that depend on the time that each took.
        def timed? = @style.timed?

        # @param answer [Answer, nil]
        # @param shown_at [Float, nil] when the seat's device was sent the open prompt
        # @param worth [Worth, nil] of the answer, where that is known already
        # @param hand [Rational, nil] mark that a teacher gave, which stands before what the key says
        # @param steps [Array<Step>, nil] to which it is added how mark and points come about
        # @return [Outcome]
        def outcome(answer, shown_at, worth = nil, hand: nil, steps: nil)
          reached = !(answer.nil? && shown_at.nil?)
          worth ||= worth(answer)
          answer = nil if worth&.blank
          if @set_aside then left_out(answer, reached)
          elsif answer.nil? then without_answer(reached, hand, steps)
          elsif hand || answer.readable? then given(answer, worth, shown_at, hand, steps)
          else unread(answer, steps)
          end
        end

        # What an answer earns by the key, however long it took.
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
          timing ? [used, timing.total(@factor)].min : used
        end

        private

        def worth(answer) = (Worth.of(@prompt, answer.value) if answer&.readable?)

        def unfinished?(answer) = answer.unfinished?(@opening)

        # Whether an answer came too late to earn anything.
        def uncounted?(answer) = answer.late? && (@style.timed? || !@rules.late_earns?)

        def given(answer, worth, shown_at, hand, steps)
          return marked(answer, worth, shown_at, hand, steps) if hand || !@waits

          Outcome.new(:to_mark, nil, (0 if @style.points?), answer, unfinished?(answer)).freeze
        end

        def marked(answer, worth, shown_at, hand, steps)
          late = hand.nil? && worth&.mark && uncounted?(answer)
          mark = hand ? Step.note(steps, :hand_mark, hand) : by_key(answer, worth, late, steps)
          status = late ? late_status : Outcome.status(mark)
          Outcome.new(status, mark, points(mark, answer, shown_at, steps), answer, unfinished?(answer)).freeze
        end

        def by_key(answer, worth, late, steps)
          mark = mark(answer, worth)
          @prompt.mark(answer.value, steps: steps) if steps && mark
          Step.note(steps, late ? :late : :by_key, mark, by_key: worth.mark) if mark
          mark
        end

        def late_status = @rules.late_earns? ? :wrong : :late

        def unread(answer, steps)
          mark = mark(answer)
          Step.note(steps, :unread, mark) if mark
          Outcome.new(:unread, mark, (0 if @style.points?), answer, !@opening&.open?).freeze
        end

        # The answer stays to be looked at.
        def left_out(answer, reached)
          Outcome.new(reached ? :set_aside : :not_reached, nil, nil, answer, answer&.unfinished?(@opening) || false).freeze
        end

        def without_answer(reached, hand, steps)
          return Outcome.new(:not_reached, nil, nil, nil, false).freeze unless reached || hand

          mark = hand ? Step.note(steps, :hand_mark, hand) : (0r if @prompt.keyed? || @waits)
          Step.note(steps, :no_answer, mark) if mark && hand.nil?
          status = hand ? Outcome.status(hand) : :blank
          Outcome.new(status, mark, points(mark, nil, nil, steps) || (0 if @style.points?), nil, false).freeze
        end

        # Of a device that was never sent the question it is not known how long it took: then all of the time.
        def points(mark, answer, shown_at, steps)
          return nil unless @style.points?
          return Step.note(steps, :no_points, 0) if mark.nil?

          @style.earned(@prompt.points, mark, sure: (answer.sure if answer && !uncounted?(answer)), used: used(answer, shown_at),
                                              timing: (timing if @style.timed?), steps: steps)
        end

        # Where the teacher enters what a team says at the board, the order of her touches is nobody's speed.
        # @return [Numeric, nil]
        def used(answer, shown_at)
          return nil unless answer && @style.timed? && timing
          return 0 if answer.entered

          seconds(answer.received_at, shown_at)&.then { |taken| taken / @factor }
        end

        # @return [Game::Timing, nil] of what is asked; nil where no clock runs
        def timing
          return @timing if defined?(@timing)

          @timing = @style.points? && @style.clock? ? Game::Timing.of(@slide, @rules) : plain_timing
        end

        def plain_timing
          limit = @prompt.time_limit
          limit && !@style.points? ? Game::Timing.new(0, limit).freeze : nil
        end
      end
    end
  end
end

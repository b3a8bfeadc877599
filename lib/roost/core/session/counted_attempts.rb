# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Where each student may go through the same questions several times, what counts (rules.md, sittings): one of the
      # attempts, or of the last one the answers and of all of them the mean share.
      class CountedAttempts
        # answers, shown:: what counts of each seat, as its first attempt and nothing else
        # shares:: Hash of seat id to mean share, of those with several attempts of which the mean counts
        # sat:: Hash of seat id to ids of the slides of the attempt that counts, where that has ended
        attr_reader :answers, :shown, :shares, :sat

        # @param answers [Hash] as Record has them
        # @param shown [Hash] likewise, to when it was shown
        # @param sat [Hash] [seat id, attempt] to ids of the slides of a sitting that has ended
        # @param counts [String] one of Sitting::COUNTS
        # @param set_aside [Array<String>] ids of slides whose question counts for nobody
        # @param rules [Rules]
        def initialize(answers, shown, lesson:, counts:, sat: {}, set_aside: [], rules: Rules::CURRENT)
          @all = { answers: answers.transform_values(&:to_h), shown: shown.transform_values(&:to_h) }
          @prompts = lesson.prompts.reject { |slide| set_aside.include?(slide.id) || !slide.prompt.keyed? }
          @counting = @prompts.select { |slide| slide.prompt.counts? }
          @counts = counts
          @ended = rules.whole_sittings? ? sat : {}
          @rules = rules
          @scorings = {}
          several = attempts
          once = several.all? { |_, each| each == [1] }
          @answers, @shown, @shares, @sat = once ? [*all.values, {}, of_attempts(several)] : counted(several)
          freeze
        end

        private

        attr_reader :all, :prompts, :counting, :counts, :ended, :rules

        # @return [Hash{Integer=>Array<Integer>}] seat id to the numbers of its attempts
        def attempts
          pairs = all.values.flat_map(&:to_a).flat_map { |(_, attempt), seats| seats.keys.map { |id| [id, attempt] } }
          (pairs + ended.keys).uniq.group_by(&:first).transform_values { |each| each.map(&:last).sort }
        end

        def counted(attempts)
          chosen = attempts.to_h { |seat_id, each| [seat_id, chosen(each, seat_id)] }
          means = counts == "mean" ? attempts.to_h { |seat_id, each| [seat_id, mean(each, seat_id)] }.compact : {}
          [*all.values.map { |parts| first(parts, chosen) }, means, of_attempts(chosen.transform_values { |each| [each] })]
        end

        # @param attempts [Hash{Integer=>Array<Integer>}] seat id to the one attempt
        def of_attempts(attempts) = attempts.to_h { |seat_id, (attempt)| [seat_id, ended[[seat_id, attempt]]] }.compact

        def chosen(attempts, seat_id)
          case counts
          when "first" then attempts.first
          when "last", "mean" then attempts.last
          else attempts.max_by { |attempt| [marks(attempt, seat_id, rules.practice_chooses? ? prompts : counting).sum, attempt] }
          end
        end

        # @return [Rational, nil] nil of a single attempt, and where nothing was marked
        def mean(attempts, seat_id)
          shares = attempts.filter_map do |attempt|
            marks = marks(attempt, seat_id, counting)
            marks.sum / marks.length if marks.any?
          end
          shares.sum / shares.length if attempts.length > 1 && shares.any?
        end

        # @return [Array<Rational>] of the questions that were shown or answered, or that a sitting that has ended had
        def marks(attempt, seat_id, slides)
          given = ended.fetch([seat_id, attempt], [])
          slides.filter_map do |slide|
            answer, shown_at = all.values.map { |parts| parts.dig([slide.id, attempt], seat_id) }
            outcome = scoring(slide).outcome(answer, shown_at)
            outcome.mark || (0r if given.include?(slide.id))
          end
        end

        def scoring(slide) = @scorings[slide.id] ||= Scoring.new(slide, opening: nil, play: Play.plain(rules))

        def first(parts, chosen)
          parts.each_with_object({}) do |((slide_id, attempt), seats), counted|
            seats.each { |id, what| (counted[[slide_id, 1]] ||= {})[id] = what if chosen[id] == attempt }
          end
        end
      end
    end
  end
end

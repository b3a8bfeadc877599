# frozen_string_literal: true

module Roost
  module Core
    module Session
      # Where each student may go through the same questions several times, which time counts (rules.md, sittings).
      module CountedAttempts
        class << self
          # @param answers [Hash] as Record has them: [slide id, attempt] to seat id to Answer
          # @param shown [Hash] likewise, to when it was shown
          # @param counts [String] one of Sitting::COUNTS
          # @return [Array(Hash, Hash)] the same with what counts for each seat as the first attempt, and nothing else
          def of(answers, shown, lesson:, counts:)
            attempts = seen_attempts(answers, shown)
            return [answers, shown] if attempts.all? { |_, each| each == [1] }

            chosen = attempts.to_h { |seat_id, each| [seat_id, chosen(each, seat_id, answers, lesson, counts)] }
            [answers, shown].map { |all| first(all, chosen) }
          end

          private

          def seen_attempts(answers, shown)
            pairs = [answers, shown].flat_map(&:to_a).flat_map { |(_, attempt), seats| seats.keys.map { |id| [id, attempt] } }
            pairs.uniq.group_by(&:first).transform_values { |each| each.map(&:last).sort }
          end

          def chosen(attempts, seat_id, answers, lesson, counts)
            case counts
            when "first" then attempts.first
            when "last" then attempts.last
            else attempts.max_by { |attempt| [earned(attempt, seat_id, answers, lesson), attempt] }
            end
          end

          def earned(attempt, seat_id, answers, lesson)
            lesson.prompts.select { |slide| slide.prompt.keyed? }.sum do |slide|
              answer = answers.dig([slide.id, attempt], seat_id)
              answer&.readable? ? slide.prompt.mark(answer.value) || 0 : 0
            end
          end

          def first(all, chosen)
            all.each_with_object({}) do |((slide_id, attempt), seats), counted|
              seats.each { |id, what| (counted[[slide_id, 1]] ||= {})[id] = what if chosen[id] == attempt }
            end
          end
        end
      end
    end
  end
end

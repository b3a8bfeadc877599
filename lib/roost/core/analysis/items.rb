# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # How good the questions of a set were, and the set as a whole (rules.md, how good the question was). Students who did not
      # reach a question have no part in its figures; what they earned on the others is taken as a mean, so that whoever left
      # early is compared with all.
      class Items
        LEAST = 8 # students
        LEAST_ITEMS = 3
        EASY = 19/20r
        HARD = 3/10r
        APART = 0.1
        RUSHED = 1/5r # of the time there was

        # alpha:: Cronbach's (1951), nil where there is too little; error:: of one student's result, in questions
        # items, students:: of how many
        Reliability = Struct.new(:alpha, :error, :items, :students, keyword_init: true)

        # @param results [Results]
        def self.of(results)
          slides = results.slides.select { |slide| slide.prompt.keyed? && slide.prompt.counts? }
          outcomes = slides.to_h { |slide| [slide, results.outcomes(slide).select { |_, outcome| outcome.mark }] }
          marks = outcomes.transform_values { |of_seats| of_seats.transform_values(&:mark) }
          new(marks.reject { |_, of_seats| of_seats.empty? }, outcomes: outcomes, record: results.record)
        end

        # @param marks [Hash{Slide=>Hash{Integer=>Rational}}] of those who reached each, by seat
        # @param outcomes [Hash{Slide=>Hash{Integer=>Session::Outcome}}] what they gave
        # @param record [Session::Record, nil] how fast
        def initialize(marks, outcomes: {}, record: nil)
          @marks = marks
          @outcomes = outcomes
          @record = record
          @sums = Hash.new(0r)
          @many = Hash.new(0)
          marks.each_value do |of_seats|
            of_seats.each do |seat_id, mark|
              @sums[seat_id] += mark
              @many[seat_id] += 1
            end
          end
        end

        # @return [Array<Item>] in the order of the lesson
        def all = @all ||= @marks.keys.map { |slide| item(slide) }

        # @return [Item, nil]
        def of(slide) = all.find { |each| each.slide.id == slide.id }

        # @param steps [Array<Step>, nil]
        # @return [Rational]
        def facility(slide, steps: nil)
          given = @marks.fetch(slide).values
          Step.note(steps, :sum_of_marks, given.sum, students: given.length)
          Step.note(steps, :facility, given.sum / given.length, sum: given.sum, students: given.length)
        end

        # @param steps [Array<Step>, nil]
        # @return [Float, nil]
        def discrimination(slide, steps: nil)
          own = []
          rest = []
          @marks.fetch(slide).each do |seat_id, mark|
            others = @many[seat_id] - 1
            next unless others.positive?

            own << (mark = mark.to_f)
            rest << ((totals[seat_id] - mark) / others)
          end
          return nil if own.length < LEAST

          value = Statistics.correlation(own, rest, steps: steps)
          value && Step.note(steps, :discrimination, value, students: own.length)
        end

        # Of those who reached all of them.
        # @param steps [Array<Step>, nil]
        # @return [Reliability, nil] nil of fewer than LEAST_ITEMS questions or LEAST students
        def reliability(steps: nil)
          seats = @marks.values.map(&:keys).reduce(:&).to_a
          items = @marks.length
          return nil if items < LEAST_ITEMS || seats.length < LEAST

          earned = totals.values_at(*seats)
          return nil if earned.uniq.one?

          spread = Statistics.variance(earned)
          single = @marks.values.sum { |of_seats| Statistics.variance(of_seats.values_at(*seats).map(&:to_f)) }
          Step.note(steps, :variances, single, of_totals: spread, questions: items, students: seats.length)
          alpha = Step.note(steps, :alpha, items.to_f / (items - 1) * (1 - (single / spread)),
                            questions: items, single: single, of_totals: spread)
          error = Math.sqrt(spread) * Math.sqrt([1 - alpha, 0].max)
          Step.note(steps, :error, error, spread: Math.sqrt(spread), alpha: alpha)
          Reliability.new(alpha: alpha, error: error, items: items, students: seats.length).freeze
        end

        # How far each student belongs to the lower, middle and upper third of the class by their mean mark. Those who have the
        # same share the places that they take together, so that each third is a third.
        # @return [Hash{Integer=>Array(Float, Float, Float)}] by seat
        def thirds
          @thirds ||= begin
            third = @many.length / 3.0
            place = 0
            @many.keys.group_by { |id| @sums[id] / @many[id] }.sort.each_with_object({}) do |(_, alike), all|
              parts = Array.new(3) { |at| overlap(place, place + alike.length, at * third, (at + 1) * third) / alike.length }
              alike.each { |id| all[id] = parts }
              place += alike.length
            end
          end
        end

        private

        def overlap(from, to, lower, upper) = [[to, upper].min - [from, lower].max, 0.0].max

        def item(slide)
          facility = facility(slide)
          discrimination = discrimination(slide)
          options = options(slide)
          Item.new(slide: slide, students: @marks[slide].length, facility: facility, discrimination: discrimination,
                   options: options, flags: flags(slide, facility, discrimination, options)).freeze
        end

        # What was picked, where there was something to pick.
        def options(slide)
          choices = slide.prompt.choices
          counts = choices.to_h { |option| [option.id, [0, 0.0, 0.0, 0.0]] }
          of_seats = choices.any? ? @outcomes.fetch(slide, {}) : {}
          of_seats.each do |seat_id, outcome|
            answer = outcome.answer
            next unless answer&.readable?

            slide.prompt.picked(answer.value).each { |id| (of = counts[id]) && count(of, thirds[seat_id]) }
          end
          choices.map do |option|
            many, *by_third = counts[option.id]
            Item::Option.new(option: option, right: option.key, many: many, thirds: by_third).freeze
          end
        end

        # One more, who belongs to the thirds in parts.
        def count(counts, parts)
          counts[0] += 1
          counts[1] += parts[0]
          counts[2] += parts[1]
          counts[3] += parts[2]
        end

        # What each earned in all, as a Float: for what is no exact figure anyhow.
        def totals = @totals ||= @sums.transform_values(&:to_f)

        def flags(slide, facility, discrimination, options)
          return [] if @marks[slide].length < LEAST

          { check_key: discrimination&.negative? || misled?(options), rushed: rushed?(slide, facility),
            hard: facility <= HARD, no_difference: discrimination && discrimination < APART, easy: facility >= EASY }
            .select { |_, holds| holds }.keys
        end

        # Whether the best chose something that is not in the key more often than what is.
        def misled?(options)
          right, wrong = options.partition(&:right).map { |some| some.map { |each| each.thirds.last }.max || 0.0 }
          wrong > right
        end

        def rushed?(slide, facility)
          limit = slide.prompt.time_limit
          chance = slide.prompt.chance
          return false unless @record && limit && chance && facility < chance

          median = Question.median(@record.seconds(slide.id).slice(*@marks[slide].keys).values)
          !median.nil? && median < limit * RUSHED
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # Steps by which a figure was worked out (Core::Step), in words.
    module Why
      # Of each step its sentence, of what went in and what came out.
      WORDS = {
        by_key: ->(_, value) { "By the key the answer earns #{Why.mark(value)}." },
        hits_less_wrong: lambda do |numbers, value|
          hits, wrong, of = numbers.values_at(:hits, :wrong, :of)
          "(#{hits} right − #{wrong} wrong) ÷ #{of} = #{Why.number(value)}#{", no less than 0" if wrong > hits}."
        end,
        right_of_all: ->(numbers, value) { "#{numbers[:right]} of #{numbers[:of]} right: #{Why.mark(value)}." },
        pairs_in_order: lambda do |numbers, value|
          "Of #{numbers[:of]} pairs, #{numbers[:right]} stand in the right order: #{Why.mark(value)}."
        end,
        late: ->(numbers, _) { "It would earn #{Why.mark(numbers[:by_key])}, but it came late and doesn't count: 0." },
        unread: ->(_, _) { "Not a valid answer: 0." },
        no_answer: ->(_, _) { "Shown, but not answered: 0." },
        hand_mark: ->(_, value) { "The teacher gave #{Why.mark(value)}; that stands before the key." },
        no_points: ->(_, _) { "Nothing marks it, so it earns no points." },
        for_the_mark: lambda do |numbers, value|
          "#{numbers[:points]} points × #{Why.number(numbers[:mark])} for the mark = #{Why.number(value)}."
        end,
        for_the_time: lambda do |numbers, value|
          thinking = [numbers[:used] - numbers[:reading], 0].max
          "Time used: #{Why.number(numbers[:used].round(1))} s. The first #{Why.number(numbers[:reading])} s are for reading " \
            "and cost nothing; the #{Why.number(numbers[:limit])} s after them cost up to #{Why.percent(numbers[:speed])}: " \
            "#{Why.number(numbers[:earned])} × (1 − #{Why.number(numbers[:speed])} × #{Why.number(thinking)} ÷ " \
            "#{Why.number(numbers[:limit])}) = #{Why.number(value)}."
        end,
        for_being_sure: lambda do |numbers, value|
          sure = RoundsInWords::SURE.fetch(numbers[:sure]).downcase
          "#{numbers[:points]} points ÷ 3 × #{Why.number(numbers[:times])}, for being #{sure} " \
            "with a mark of #{Why.number(numbers[:mark])} = #{Why.number(value)}."
        end,
        rounded: ->(_, value) { "Rounded, halves up: #{value}." },
        sum_of_marks: ->(numbers, value) { "The marks of #{numbers[:students]} students add up to #{Why.number(value)}." },
        facility: lambda do |numbers, value|
          "#{Why.number(numbers[:sum])} ÷ #{numbers[:students]} = #{Why.percent(value)} right, of all who reached it."
        end,
        sum_of_own: ->(numbers, value) { "The marks of #{numbers[:questions]} questions add up to #{Why.number(value)}." },
        share: ->(numbers, value) { "#{Why.number(numbers[:sum])} ÷ #{numbers[:questions]} = #{Why.percent(value)}." },
        mean_of_attempts: ->(_, value) { "The mean share of all attempts: #{Why.percent(value)}." },
        earned_of_all: lambda do |numbers, value|
          dropped = numbers[:dropped].positive? ? ", the #{numbers[:dropped]} lowest left out" : ""
          "Of #{Why.number(numbers[:questions])} questions or points#{dropped}, #{Why.number(value)} were earned."
        end,
        earned_weighted: lambda do |numbers, value|
          dropped = numbers[:dropped].positive? ? " #{numbers[:dropped]} of the lowest left out." : ""
          "Each column times its weight: #{Why.number(value)} of #{Why.number(numbers[:questions])}.#{dropped}"
        end,
        of_category: lambda do |numbers, value|
          name = numbers[:name].empty? ? "Everything else" : numbers[:name]
          "#{name}: #{Why.number(numbers[:earned])} ÷ #{Why.number(numbers[:possible])} = #{Why.percent(value)}, weight " \
            "#{Why.number(numbers[:weight])}."
        end,
        weighted_mean: lambda do |numbers, value|
          "Each times its weight, added up and divided by #{Why.number(numbers[:weight])}: #{Why.percent(value)}."
        end,
        by_table: lambda do |numbers, value|
          numbers[:from] ? "From #{Why.number(numbers[:from] * 100)} % on it is #{value}." : "No grade begins that low."
        end,
        on_scale: ->(numbers, value) { "#{Why.number(numbers[:top])} × #{Why.percent(numbers[:share])} = #{Why.number(value)}." },
        to_step: ->(numbers, value) { "Rounded to steps of #{Why.number(numbers[:step])}, halves up: #{Why.number(value)}." },
        weighted_sum: lambda do |numbers, value|
          "The marks of #{numbers[:questions]} questions, each times its points, add up to #{Why.number(value)}."
        end,
        weighted_share: lambda do |numbers, value|
          "Divided by #{Why.number(numbers[:weight])} possible points: #{Why.percent(value)}."
        end,
        interval: lambda do |numbers, (from, to)|
          "On #{numbers[:marks]} marks the true share lies, in 95 of 100 cases, from #{Why.percent(from)} to #{Why.percent(to)}."
        end,
        has_it: lambda do |numbers, value|
          if value == :too_little then "Fewer than #{Core::Analysis::Mastery::ENOUGH} marks are too few to say."
          else
            reaches = value == :has ? "reaches" : "is below"
            "#{Why.percent(numbers[:share])} #{reaches} the line of #{Why.percent(numbers[:line])}."
          end
        end,
        together: lambda do |numbers, value|
          "Of #{numbers[:students]} students, mark and the mean of their other questions vary together by #{Why.number(value)} " \
            "(covariance)."
        end,
        correlation: lambda do |numbers, value|
          "Divided by how much each varies alone: #{Why.number(numbers[:together])} ÷ (#{Why.number(numbers[:spread])} × " \
            "#{Why.number(numbers[:rest_spread])}) = #{Why.number(value)}."
        end,
        discrimination: lambda do |_, value|
          "So it tells students apart by #{Why.number(value)}: 1 is as well as can be, 0 not at all, below 0 the wrong way round."
        end,
        mean_discrimination: lambda do |numbers, value|
          "The mean of #{numbers[:sessions]} #{numbers[:sessions] == 1 ? "session" : "sessions"}, each by how many of " \
            "#{numbers[:students]} students it had: #{Why.number(value)}."
        end,
        certain: lambda do |numbers, value|
          "#{Why.percent(numbers[:share])} of #{numbers[:marks]} marks: at least #{Why.percent(value)} is certain (lower " \
            "end of the 95 % interval)."
        end,
        forgotten: lambda do |numbers, value|
          "After #{Why.number(numbers[:days].round(1))} days, with half forgotten after #{Why.number(numbers[:half_life])}: " \
            "#{Why.percent(value)} is forgotten."
        end,
        need: lambda do |numbers, value|
          "(100 % − #{Why.percent(numbers[:certain])}) × #{Why.percent(numbers[:forgotten])} = #{Why.percent(value)} need."
        end,
        rank: lambda do |numbers, value|
          alike = numbers[:alike].positive? ? ", #{numbers[:alike]} have as many" : ""
          "#{numbers[:ahead]} of #{numbers[:of]} have more than #{numbers[:points]} points#{alike}: rank #{value}."
        end,
        agreement: lambda do |numbers, value|
          "#{numbers[:same]} of #{numbers[:answers]} answers got the same: #{Why.percent(value)}."
        end,
        by_chance: ->(_, value) { "By chance alone it would be #{Why.percent(value)}." },
        kappa: lambda do |numbers, value|
          observed, expected = numbers.values_at(:observed, :expected).map { |share| Why.percent(share) }
          "(#{observed} − #{expected}) ÷ (100 % − #{expected}) = #{Why.number(value)}."
        end,
        variances: lambda do |numbers, value|
          "The #{numbers[:questions]} questions vary by #{Why.number(value)} taken one by one, the totals of " \
            "#{numbers[:students]} students by #{Why.number(numbers[:of_totals])}."
        end,
        alpha: lambda do |numbers, value|
          items = numbers[:questions]
          "Reliability: #{items} ÷ #{items - 1} × (1 − #{Why.number(numbers[:single])} ÷ #{Why.number(numbers[:of_totals])}) = " \
            "#{Why.number(value)} (Cronbach's α)."
        end,
        error: lambda do |numbers, value|
          "Error of one total: #{Why.number(numbers[:spread])} × √(1 − #{Why.number(numbers[:alpha])}) = " \
            "#{Why.number(value)} questions."
        end
      }.freeze

      FRACTIONS = { 1/4r => "¼", 1/2r => "½", 3/4r => "¾" }.freeze

      class << self
        # @param steps [Array<Core::Step>]
        # @return [Array<String>] a sentence each
        def sentences(steps) = steps.map { |step| WORDS.fetch(step.name).call(step.numbers, step.value) }

        # 0.35, 12, ⅔ as 0.667
        def number(value) = value.to_f.round(3).then { |short| short == short.to_i ? short.to_i.to_s : short.to_s }

        def percent(share) = "#{(share * 100).round(half: :up)} %"

        # ¾; of what has no sign of its own as #number.
        def fraction(mark) = FRACTIONS.fetch(mark) { number(mark) }

        # A mark from 0 to 1.
        def mark(value) = "#{fraction(value)} of 1"
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Which questions a class should meet again, by need (rules.md, what to bring back): what it did not have, and what it
      # will have forgotten since.
      class BringBack
        LINE = CatchUp::LINE
        HALF_LIFE = 2.0 # days, of something just learned; twice as long with each time the class had it

        # One time that a question was asked of the class. origin:: of the question; session_id, slide_id:: where it stands
        # share:: mean mark; marks:: of how many; at:: epoch seconds
        Asked = Struct.new(:origin, :session_id, :slide_id, :share, :marks, :at, keyword_init: true)
        # last:: Asked, the last time; need:: 0 to 1; days:: since then; steps:: Array of Step by which need came about
        Need = Struct.new(:last, :need, :days, :steps, keyword_init: true)

        # @param asked [Array<Asked>] in any order; questions are the same where they have one origin
        # @param now [Float] epoch seconds
        # @return [Array<Need>] the greatest need first
        def self.of(asked, now:)
          needs = asked.group_by(&:origin).values.map { |times| need(times.sort_by(&:at), now) }
          needs.sort_by { |each| [-each.need, each.last.slide_id] }
        end

        def self.need(times, now)
          last = times.last
          days = (now - last.at) / 86_400
          half_life = times.reduce(HALF_LIFE) { |so_far, each| each.share >= LINE ? so_far * 2 : HALF_LIFE }
          steps = []
          lower = Step.note(steps, :certain, Wilson.interval(last.share * last.marks, last.marks).first, share: last.share,
                                                                                                         marks: last.marks)
          forgotten = Step.note(steps, :forgotten, 1 - (2**(-days / half_life)), days: days, half_life: half_life)
          need = Step.note(steps, :need, (1 - lower) * forgotten, certain: lower, forgotten: forgotten)
          Need.new(last: last, need: need, days: days, steps: steps.freeze).freeze
        end
        private_class_method :need
      end
    end
  end
end

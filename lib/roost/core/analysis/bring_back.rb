# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # Which questions a class should meet again, by need (rules.md, what to bring back): what it did not have, and what it
      # will have forgotten since.
      class BringBack
        LINE = CatchUp::LINE
        HALF_LIFE = 2.0 # days, of something just learned; twice as long with each time the class had it

        # One time that a question was asked of the class. share:: mean mark; marks:: of how many; at:: epoch seconds
        Asked = Struct.new(:slide, :share, :marks, :at, keyword_init: true) do
          # Of what was given in a session, whoever gave it.
          # @param record [Session::Record] without answers
          # @param slide [Slide]
          # @param given [Array<Array(Session::Answer, Integer)>] what was given, and by how many
          # @param without [Integer] how many had the question before them and gave nothing
          # @return [Asked, nil] nil where nothing is marked
          def self.of(record, slide, given:, without:, at:)
            return nil if !slide.prompt.keyed? || record.set_aside?(slide.id)

            scoring = record.scoring(slide.id)
            marks = given.sum(&:last) + without
            earned = given.sum { |answer, many| scoring.mark(answer) * many }
            new(slide: slide, share: earned.to_r / marks, marks: marks, at: at).freeze
          end
        end
        # need:: 0 to 1; share:: the last time; days:: since then
        Need = Struct.new(:slide, :need, :share, :days, keyword_init: true)

        # @param asked [Array<Asked>] in any order; questions are the same where their prompts have one origin
        # @param now [Float] epoch seconds
        # @return [Array<Need>] the greatest need first
        def self.of(asked, now:)
          needs = asked.group_by { |each| each.slide.prompt.origin }.values.map { |times| need(times.sort_by(&:at), now) }
          needs.sort_by { |each| [-each.need, each.slide.id] }
        end

        def self.need(times, now)
          last = times.last
          days = (now - last.at) / 86_400
          half_life = times.reduce(HALF_LIFE) { |so_far, each| each.share >= LINE ? so_far * 2 : HALF_LIFE }
          lower, = Wilson.interval(last.share * last.marks, last.marks)
          Need.new(slide: last.slide, need: (1 - lower) * (1 - (2**(-days / half_life))), share: last.share, days: days).freeze
        end
        private_class_method :need
      end
    end
  end
end

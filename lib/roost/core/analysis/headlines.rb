# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # What happened in a session, in at most five lines, the most useful first (rules.md). None of fewer than Items::LEAST who
      # answered, but for what waits to be done.
      class Headlines
        MOST = 5
        MISSED = HALF = 1/2r # of all, and of a mark
        CERTAIN = 15 # students, from whom on a question that tells nothing apart is worth a line
        FURTHER = 1/4r
        SESSIONS = 3
        LINE = CatchUp::LINE

        # about:: :check_key, :missed, :fell_away, :no_difference, :easy, :to_mark, :further or :all_well
        # slide:: of the question, where it is about one, the first of slides:: where about several; item:: Item of it
        # seats:: Array of Seat, whom it is about
        # many:: how many missed it; wrong:: Wrong, what at least half of those who were wrong gave, or nil
        Line = Struct.new(:about, :slide, :slides, :item, :seats, :many, :wrong, keyword_init: true)
        # said:: the answer in words; many:: how many gave it
        Wrong = Struct.new(:said, :many, keyword_init: true)

        # @param results [Results]
        # @param before [Hash{Integer=>Array<Rational>}] shares of earlier sessions by seat, the last first
        def initialize(results, before: {})
          @results = results
          @record = results.record
          @before = before
        end

        # @return [Array<Line>]
        def all
          return to_mark if answered < Items::LEAST
          return [Line.new(about: :all_well, seats: []).freeze, *to_mark] if well?

          [*suspect, *missed, *fell_away, *alike, *to_mark, *further].first(MOST)
        end

        # What was given to a question and is not right, with those who gave it, the most frequent first. What reads alike is one.
        # @return [Array<Array(String, Array<Seat>)>]
        def self.wrong_answers(results, slide)
          outcomes = results.outcomes(slide)
          wrong = results.lines.select { |line| wrong?(outcomes[line.seat.id]) }
          alike = wrong.group_by { |line| slide.prompt.answered(outcomes[line.seat.id].answer.value) }
          alike.transform_values { |lines| lines.map(&:seat) }.sort_by { |said, seats| [-seats.length, said] }
        end

        def self.wrong?(outcome) = %i[wrong part].include?(outcome&.status) && outcome.answer&.readable?
        private_class_method :wrong?

        private

        def items = @results.items.all

        def answered = @results.took_part

        # Of a question that most had right, one or two who were wrong by chance make it look so.
        def suspect = items.select { |item| suspect?(item) }.map { |item| line(:check_key, item) }

        def suspect?(item) = item.flags.include?(:check_key) && item.facility < LINE

        # The one that most missed comes first.
        def missed
          of = plenty.select { |item| item.facility <= MISSED && !suspect?(item) }
          of.sort_by(&:facility).map do |item|
            outcomes = @results.outcomes(item.slide)
            seats = @results.lines.map(&:seat).select { |seat| (outcomes[seat.id]&.mark || 1) < HALF }
            line(:missed, item, seats: seats, many: seats.length, wrong: wrong(item))
          end
        end

        # Questions that enough have reached.
        def plenty = items.select { |item| item.students >= Items::LEAST }

        # What at least half of those who were wrong gave.
        def wrong(item)
          given = Headlines.wrong_answers(@results, item.slide)
          said, those = given.first
          return nil if those.nil? || those.length * 2 < given.sum { |_, all| all.length }

          Wrong.new(said: said, many: those.length).freeze
        end

        # Who had answered at least two, and nothing on the last third of what they were asked while here.
        def fell_away
          seats = @results.lines.select { |each| fell_away?(each) }.map(&:seat)
          seats.empty? ? [] : [Line.new(about: :fell_away, seats: seats).freeze]
        end

        def fell_away?(line)
          asked = @results.slides.map { |slide| line.outcomes[slide.id] }
                          .reject { |outcome| %i[not_reached set_aside].include?(outcome.status) }
          last = asked.last((asked.length / 3.0).floor)
          asked.count(&:answer) >= 2 && last.any? && last.none?(&:answer)
        end

        # One line for all that are so.
        def alike
          said = [*suspect, *missed].map(&:slide)
          by_kind = plenty.reject { |item| said.include?(item.slide) }.group_by { |item| alike_how(item) }.except(nil)
          by_kind.map { |about, all| line(about, all.first, slides: all.map(&:slide)) }
        end

        def alike_how(item)
          return :easy if item.facility >= Items::EASY

          :no_difference if item.students >= CERTAIN && item.discrimination && item.discrimination < Items::APART
        end

        def further
          seats = @results.lines.select { |each| further?(each) }.map(&:seat)
          seats.empty? ? [] : [Line.new(about: :further, seats: seats).freeze]
        end

        def further?(line)
          before = @before.fetch(line.seat.id, []).first(SESSIONS)
          before.length == SESSIONS && line.share && line.share - Statistics.mean(before) >= FURTHER
        end

        def to_mark
          waiting = @results.to_mark
          return [] if waiting.empty?

          [Line.new(about: :to_mark, slide: waiting.keys.first, slides: waiting.keys, many: waiting.values.sum, seats: []).freeze]
        end

        def well? = items.any? && items.all? { |item| item.facility >= LINE }

        def line(about, item, **more)
          Line.new(about: about, slide: item.slide, slides: [item.slide], item: item, seats: [], **more).freeze
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Session
      # How one play of a game round went: points of seats and teams, who stands where, and what is worth telling at its end. A
      # function of the record, so that a corrected key gives the round that would have been.
      class RoundResult
        # What is best of a student's round, for their own page. name:: :only (nobody else had it right), :fastest (of those
        # who had it right), :climb (ranks), :row (right one after the other), :points (of their best question), or :there
        # (questions answered); slide:: the question, where it is one; number:: how many, or seconds
        Best = Struct.new(:name, :slide, :number)
        # total, possible:: points of the whole class; goal:: points that it is to reach; share:: total of possible, 0 to 1
        Together = Struct.new(:total, :possible, :goal, :share)
        # Ranks after this one are told together.
        ONE_BY_ONE = 10
        # Fewer ranks climbed, or questions right one after the other, are nothing to tell.
        LEAST = 2

        # @return [Array<Slide>] questions that were played, in the order in which they were opened
        attr_reader :questions

        # @param record [Record]
        # @param section [Section] the game round
        # @param play [Play, nil] nil in sessions of before rounds could be played again
        def initialize(record, section, play = record.facts.play(section.id))
          @record = record
          @play = play
          asked = record.lesson.questions_of(section).to_h { |slide| [slide, opening_of(slide)] }.compact
          over = asked.reject { |slide, opening| opening.open? || record.passed_over?(slide.id, opening.attempt) }
          @openings = over.sort_by { |_, opening| opening.opened_at }.to_h.freeze
          @questions = @openings.keys.freeze
          @known = {}
        end

        # @return [Game::Style]
        def style = @style ||= @play&.played || Game::Style.make("points", speed: @record.options.speed)

        # Whether teams stand in an order, and not single seats.
        def teams? = @record.teams.any?

        # @return [Integer] which attempt at a question this play has
        def attempt(slide) = @openings.fetch(slide).attempt

        # @param slide [Slide] of these questions
        # @return [PlayedQuestion]
        def question(slide)
          once(:question, slide) do
            @record.memory.of_play(@record, slide.id, attempt(slide), @openings[slide]) do
              PlayedQuestion.of(@record, slide.id, attempt(slide))
            end
          end
        end

        # @return [Hash{Integer=>Integer}] seat id to the points of one question
        def points(slide) = question(slide).points

        # @param many [Integer] of the first so many questions
        # @return [Hash{Integer=>Integer}] seat id to points of them all
        def totals(many = questions.length)
          once(:totals, many) do
            next @record.seats.to_h { |seat| [seat.id, 0] } if many.zero?

            @record.memory.of_same([:totals, many], questions.first(many).map { |slide| question(slide) }) do
              last = points(questions[many - 1])
              totals(many - 1).to_h { |seat_id, earned| [seat_id, earned + last[seat_id]] }
            end
          end
        end

        # @return [Hash{Integer=>Integer}] team id to the points of one question
        def team_points(slide) = question(slide).team_points

        # @param many [Integer] of the first so many questions
        # @return [Hash{Integer=>Integer}] team id to points of them all
        def team_totals(many = questions.length)
          @record.teams.to_h { |team| [team.id, questions.first(many).sum { |slide| team_points(slide).fetch(team.id) }] }
        end

        # @return [Array<Game::Standings::Row>] of seats, as after the last question
        def rows
          once(:rows) { Game::Standings.rows(@record.names, totals, (totals(earlier) if earlier.positive?)) }
        end

        # @return [Array<Game::Standings::Row>] of teams
        def team_rows
          once(:team_rows) { Game::Standings.rows(team_names, team_totals, (team_totals(earlier) if earlier.positive?)) }
        end

        # @return [Array<Game::Standings::Row>] of those who stand in an order
        def standings = teams? ? team_rows : rows

        # The class as a whole.
        # @return [Together]
        def together
          once(:together) do
            total = totals.values.sum
            possible = questions.sum { |slide| slide.prompt.points * question(slide).marks.length }
            share = possible.zero? ? 0r : Rational(total, possible)
            Together.new(total, possible, (style.goal * possible).ceil, share)
          end
        end

        # What is told at the end, one after the other: from the last rank to the first, those after ONE_BY_ONE together.
        # @return [Array<Array<Game::Standings::Row>>]
        def steps
          once(:steps) do
            first, rest = standings.partition { |row| row.rank <= ONE_BY_ONE }
            [*(rest.any? ? [rest] : []), *first.group_by(&:rank).values.reverse]
          end
        end

        # @return [Slide, nil] the question that went worst
        def hardest
          marked = questions.select { |slide| question(slide).facility }
          marked.min_by { |slide| question(slide).facility } if marked.length > 1
        end

        # Who climbed most from the first question to the last.
        # @return [Array<Game::Standings::Row>] all who climbed as much; moved says by how many ranks
        def climbers
          return [] unless questions.length > 1

          rows = if teams? then Game::Standings.rows(team_names, team_totals, team_totals(1))
                 else Game::Standings.rows(@record.names, totals, totals(1))
                 end
          most = rows.map { |row| row.moved.to_i }.max.to_i
          most >= LEAST ? rows.select { |row| row.moved == most } : []
        end

        # @return [Best, nil] nil of who was there for none of it
        def best(seat_id)
          reached = questions.select { |slide| question(slide).reached?(seat_id) }
          return nil if reached.empty?

          of_question(reached, seat_id) || climb(seat_id) || row(seat_id) || most_points(reached, seat_id) ||
            Best.new(:there, nil, reached.count { |slide| question(slide).outcomes[seat_id].answer })
        end

        private

        def once(name, key = nil)
          known = @known[name] ||= {}
          known.key?(key) ? known[key] : known[key] = yield
        end

        def opening_of(slide)
          @play ? @record.facts.opening_in(@play, slide.id) : @record.opening(slide.id)
        end

        # How many questions there are but the last.
        def earlier = [questions.length - 1, 0].max

        def team_names = @record.teams.to_h { |team| [team.id, team.name] }

        # What nobody else did, at one question: how quick they were only where that counts.
        def of_question(reached, seat_id)
          only = reached.find { |slide| question(slide).only?(seat_id) }
          return Best.new(:only, only, nil) if only

          quick = reached.find { |slide| question(slide).quickest&.first == seat_id } if style.timed?
          quick && Best.new(:fastest, quick, question(quick).quickest.last)
        end

        def climb(seat_id)
          ranks = once(:ranks) { questions.each_index.map { |at| Game::Standings.ranks(@record.names, totals(at + 1)) } }
          steps = ranks.each_cons(2).map { |before, after| before[seat_id] - after[seat_id] }
          climbed, at = steps.each.with_index(1).max_by(&:first)
          Best.new(:climb, questions[at], climbed) if climbed && climbed >= LEAST
        end

        def row(seat_id)
          longest = questions.map { |slide| question(slide).right.key?(seat_id) }.chunk_while { |one, two| one == two }
                             .select(&:first).map(&:length).max.to_i
          Best.new(:row, nil, longest) if longest >= LEAST
        end

        def most_points(reached, seat_id)
          slide = reached.max_by { |each| points(each).fetch(seat_id, 0) }
          most = points(slide).fetch(seat_id, 0)
          Best.new(:points, slide, most) if most.positive?
        end
      end
    end
  end
end

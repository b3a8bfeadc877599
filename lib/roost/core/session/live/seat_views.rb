# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What the seats of a moment see, grouped: most see the same, and only those that may see something else are asked.
      class SeatViews
        # What is another thing for some as long as it is shown.
        FOR_EACH = %w[pairs key standings].freeze
        private_constant :FOR_EACH

        # @param moment [Moment]
        # @param common [Views::Seat] what all see alike
        def initialize(moment, common)
          @moment = moment
          @common = common
        end

        # @param seat_ids [Array<Integer>]
        # @return [Hash{Views::Seat=>Array<Integer>}] each distinct view with the seats that have it
        def by_view(seat_ids)
          alike = @common.to_h.values_at(*Views::APART)
          each = each_differs?
          apart = seat_ids.group_by { |id| each || may_differ?(id) ? apart(id) : alike }
          apart.transform_keys { |own| own == alike ? @common : @common.dup.tap { |view| differ(view, own) }.freeze }
        end

        private

        attr_reader :moment

        def differ(view, own) = Views::APART.zip(own) { |name, value| view[name] = value }

        def may_differ?(seat_id) = answered.key?(seat_id) || longer.key?(seat_id)

        def each_differs?
          state = moment.state
          return true if moment.at_end?

          state.ended? || moment.teams.any? || FOR_EACH.any? do |what|
            state.shows?(what)
          end || moment.slide&.prompt&.shuffle?
        end

        def answered = @answered ||= moment.slide&.prompt ? moment.record.all_answers(moment.slide.id) : {}

        # Seats that have more time than others.
        def longer = @longer ||= moment.seats.reject { |seat| seat.factor == 1 }.to_h { |seat| [seat.id, true] }

        def done(seat_id)
          return nil unless moment.state.ended?

          asked = moment.asked_of(seat_id)
          Views::Done.new(asked: asked.length, answered: asked.count { |slide| moment.given(slide.id).key?(seat_id) }).freeze
        end

        # What one seat sees otherwise than others do: of APART.
        def apart(seat_id)
          factor = moment.record.seat(seat_id)&.factor || 1r
          answering = moment.once([:answering, factor]) { Views.answering(moment, factor).values_at(:open, :deadline, :clock) }
          [own(seat_id), standing(seat_id), moment.order(seat_id), done(seat_id),
           pair(seat_id), team(seat_id), *answering, team_answer(seat_id), Views::Rounds.own_end(moment, seat_id)]
        end

        def team(seat_id)
          return nil if moment.teams.empty?

          moment.once(:team_by_seat) { moment.seats.to_h { |seat| [seat.id, moment.team_of(seat)] } }[seat_id]
        end

        # At the seat itself everybody may know with whom.
        def pair(seat_id)
          return nil unless moment.state.shows?("pairs")

          places = moment.once(:pair_by_seat) do
            moment.state.pairs.last.each_with_index.flat_map { |group, at| group.map { |id| [id, at] } }.to_h
          end
          place = places[seat_id]
          return nil unless place

          others = moment.state.pairs.last[place] - [seat_id]
          Views::Pair.new(number: place + 1, names: moment.names.values_at(*others).compact).freeze
        end

        # A seat learns how it did once the teacher has put the key or the standings up.
        def own(seat_id)
          slide = moment.slide
          return nil unless slide&.prompt

          answer = moment.record.answer(slide.id, seat_id, attempt: moment.attempt)
          told = moment.state.shows?("key") || moment.state.shows?("standings")
          outcome = moment.outcome(slide.id, seat_id) if told && slide.prompt.keyed?
          return nil unless answer || outcome

          value = answer.value if answer&.readable?
          Views::Own.new(value: value, typed: answer&.typed, final: answer&.final, late: answer&.late,
                         save_id: answer&.save_id, sure: answer&.sure, status: outcome&.status,
                         points: outcome&.points).freeze
        end

        def standing(seat_id)
          return nil unless moment.state.shows?("standings")

          row = moment.standings_by_seat[seat_id]
          return nil unless row
          return unranked(row) unless moment.round.style.ranked?

          Views::Standing.new(rank: row.rank, points: row.points, gap: row.gap, moved: row.moved, of: moment.seats.length,
                              team: Views::Rounds.team_standing(moment, seat_id), against: moment.against[seat_id]).freeze
        end

        def unranked(row)
          Views::Standing.new(points: row.points, together: moment.round.together, against: moment.against[row.seat_id]).freeze
        end

        # @return [Views::TeamAnswer, nil]
        def team_answer(seat_id)
          slide = moment.slide
          return nil unless slide&.prompt && moment.record.of_teams.as_one?(slide.id)

          answer = moment.record.of_teams.of(slide.id, seat_id) or return nil
          Views::TeamAnswer.new(value: answer.value, set_by: moment.names[answer.seat_id], own: answer.seat_id == seat_id,
                                final: answer.final).freeze
        end
      end
    end
  end
end

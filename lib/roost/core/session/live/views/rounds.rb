# frozen_string_literal: true

module Roost
  module Core
    module Session
      module Views
        # What is told of the game round that the class is in: of its beginning, its standings and its end.
        module Rounds
          # @param moment [Moment]
          # @return [Round, nil] nil where the class is in none
          def self.of(moment)
            section = moment.state.live? && moment.section_at
            return nil unless section

            stage = if moment.at_beginning? then :beginning
                    else
                      moment.at_end? ? :end : :question
                    end
            return nil if stage == :question && !moment.lesson.game?(moment.slide.id)

            moment.once(:round) { round_of(moment, section, stage) }
          end

          def self.round_of(moment, section, stage)
            play = moment.state.facts.play(section.id)
            rules = section.round_rules
            usual = Game::Style.make(rules["style"], speed: rules["speed"] || moment.options.speed, goal: rules["goal"])
            asked = moment.lesson.questions_of(section).length
            Round.new(stage: stage, section_id: section.id, title: section.name, asked: asked,
                      style: play ? play.played : usual, number: play&.number || 1, teams: moment.teams.length,
                      played: moment.state.plays.fetch(section.id, []).length, answering: play&.answering || rules["answering"],
                      talk: play&.talk || rules["talk"], named: moment.options.names_shown,
                      sounds: moment.options.sounds,
                      one_touch: moment.options.one_touch && !(play&.played || usual).certainty?).freeze
          end
          private_class_method :round_of

          # @return [Integer] how many steps the end of the present round has
          def self.steps(moment)
            moment.at_end? && ranked?(moment) ? moment.round.steps.length + 1 : 1
          end

          # Whether the class screen may say who stands where: teams have names that are nobody's own.
          def self.ranked?(moment)
            moment.round.style.ranked? && (moment.options.names_shown || moment.round.teams?)
          end

          # @return [Ending, nil] nil where no round ends
          def self.ending(moment)
            return nil unless moment.state.live? && moment.at_end?

            moment.once(:ending) do
              showing = moment.state.showing
              of = steps(moment)
              step = [showing.fetch("revealed", 0), of].min
              told = ranked?(moment) ? moment.round.steps.first(step) : []
              last = step == of ? at_last(moment) : {}
              Ending.new(told: told, of: of, step: step, runs: showing.key?("next_at"), **last).freeze
            end
          end

          def self.at_last(moment)
            round = moment.round
            hardest = round.hardest
            { together: round.together, hardest: hardest, facility: hardest && round.question(hardest).facility,
              climbers: ranked?(moment) ? round.climbers : [], **beaten(moment) }
          end
          private_class_method :at_last

          # How many did better than the last time that they played this round.
          def self.beaten(moment)
            compared = moment.seats.filter_map { |seat| moment.against[seat.id] }.select { |each| each.against == :yourself }
            compared.any? ? { beat: compared.count { |each| each.difference.positive? }, compared: compared.length } : {}
          end

          # @return [OwnEnd, nil] nil as long as the class has not been told that rank
          def self.own_end(moment, seat_id)
            ending = ending(moment)
            return nil if ending.nil? || ending.step.zero? || !told?(moment, ending, seat_id)

            row = moment.standings_by_seat.fetch(seat_id)
            ranked = moment.round.style.ranked?
            OwnEnd.new(rank: (row.rank if ranked), of: moment.seats.length, points: row.points, gap: (row.gap if ranked),
                       team: (team_standing(moment, seat_id) if ranked), best: moment.round.best(seat_id),
                       against: moment.against[seat_id]).freeze
          end

          # Whether what is told of the end so far says where a seat, or its team, stands.
          def self.told?(moment, ending, seat_id)
            return true if ending.over? || !ranked?(moment)

            id = moment.round.teams? ? moment.record.seat(seat_id)&.team_id : seat_id
            moment.once(:told) { ending.told.flatten.to_h { |row| [row.seat_id, true] } }.key?(id)
          end
          private_class_method :told?

          # @return [Standing, nil] of the team that a seat is in
          def self.team_standing(moment, seat_id)
            row = moment.round.teams? && moment.standings_by_team[moment.record.seat(seat_id)&.team_id]
            return nil unless row

            Standing.new(rank: row.rank, points: row.points, gap: row.gap, moved: row.moved,
                         of: moment.teams.length).freeze
          end
        end
      end
    end
  end
end

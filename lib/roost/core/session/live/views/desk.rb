# frozen_string_literal: true

module Roost
  module Core
    module Session
      module Views
        # The teacher's view of a session.
        #
        # teams:: Hash of seat id to Team, of those that are in one
        # grid:: Grid of the quiz the class is at; nil at a slide
        # dealing:: [Team] that there are, while they are dealt; nil without teams
        # keypads:: how many seats are keypads
        # boards:: how many blank pages there are
        # longer:: how many have more time, where it is closed for the others; told:: whether the present question is settled,
        # though it is open again
        # pairs:: how often the class was put into groups
        # plan:: Plan of where the lesson should be by now; nil where nothing was planned
        # together:: RoundResult::Together after the questions so far, where nobody is ranked; ending:: Ending
        # standings:: [Game::Standings::Row] so far, where somebody is ranked
        # against:: Hash of seat id to Game::Comparison, at the end of a round that was played before
        # board:: [BoardTeam] whose answers the teacher enters
        # step:: the command that makes sense next: :answers (open or close), :results, :key, :standings or :eyes
        Desk = Struct.new(*WHERE, :on_screen, :code, :room_for, :locked, :names_shown, :showing, :seat_statuses, :tally, :entries,
                          :answers, :game, :standings, :sheet, :missing, :expected, :stopped, :following, :for_teacher,
                          :keypads, :set_aside, :gave, :class_name, :last_time, :step, :pairs, :teams, :dealing, :boards,
                          :grid, :longer, :told, :by_hand, :plan, :together, :ending, :against, :board,
                          keyword_init: true)

        # What the Desk shows, put together from a moment.
        class Desk
          Place = Struct.new(:slide, :number, :section, :here, :open, :count, :done, :passed_over, keyword_init: true)
          # A team at the board. given:: the key that was entered for it; mark:: where there are no keys
          BoardTeam = Struct.new(:seat_id, :name, :team, :given, :mark, keyword_init: true)
          # begun_at:: epoch seconds; from, to:: seconds after it between which the class should be on this slide
          Plan = Struct.new(:begun_at, :from, :to, keyword_init: true) do
            # @param now [Float] epoch seconds
            # @return [Integer] whole minutes that it is behind, negative ahead, 0 as planned
            def behind(now)
              passed = now - begun_at
              return ((passed - to) / 60).to_i if passed > to

              passed < from ? -((from - passed) / 60).to_i : 0
            end
          end
          # typed:: what can't be read as an answer, in place of a value; conflicting_version:: what another window wrote
          Entry = Struct.new(:seat_id, :name, :value, :typed, :conflicting_version, :remark, :writing, :unfinished, :late,
                             :let_count, :by_line, :spotlit, :received_at, keyword_init: true)
          # What a student gave to the present question, for the tile. short:: in a few letters; mark:: 0 to 1, nil
          # where nothing is marked; parts:: what of the tally it is part of
          Gave = Struct.new(:short, :mark, :parts, keyword_init: true)

          class << self
            # @param moment [Moment]
            # @return [Desk]
            def of(moment)
              grid = Grid.of(moment) if moment.quiz && moment.state.live?
              new(**Views.where(moment), open: moment.state.open?, grid: grid, step: step(moment), **longer(moment),
                  **room(moment), **answers(moment), **round(moment), **lesson(moment)).freeze
            end

            private

            def longer(moment)
              opening = moment.state.opening
              { longer: (moment.with_longer.length if moment.state.open? && opening.most_at),
                told: moment.state.open? && !opening.told_at.nil? }
            end

            # Who is here, and who may come.
            def room(moment)
              state = moment.state
              { code: moment.code, room_for: state.room_for, locked: state.locked, by_hand: state.by_hand,
                seat_statuses: moment.seat_statuses, stopped: moment.stopped,
                missing: moment.missing.map(&:full_name), expected: moment.roll.length, names_shown: moment.options.names_shown,
                class_name: moment.class_name, pairs: state.pairs.length, boards: state.boards.length,
                keypads: moment.seats.count(&:keypad),
                dealing: (moment.teams if moment.teams.any?),
                teams: moment.teams.any? ? moment.seats.to_h { |seat| [seat.id, moment.team_of(seat)] }.compact : {} }
            end

            # What they gave, and what of it is put up.
            def answers(moment)
              state = moment.state
              asked = !moment.slide&.prompt.nil?
              game = !moment.slide.nil? && moment.lesson.game?(moment.slide.id)
              { showing: state.showing, on_screen: Views.screen(moment), gave: asked ? gave(moment) : {},
                tally: asked && moment.tally, entries: asked && entries(moment), answers: asked ? moment.given.length : 0,
                game: game,
                set_aside: state.set_aside?(state.slide_id) }
            end

            # How the round goes that the class is in.
            def round(moment)
              over = moment.round && (moment.at_end? || (moment.state.opening && !moment.state.open?))
              ranked = over && moment.round.style.ranked?
              { standings: (moment.standings if ranked), together: (moment.round.together if over && !ranked),
                ending: Rounds.ending(moment), against: moment.at_end? ? moment.against : {},
                board: at_board(moment) }
            end

            def at_board(moment)
              slide = moment.slide if moment.slide&.prompt
              moment.seats.select(&:board).map do |seat|
                answer = slide && moment.given[seat.id]
                mark = moment.record.hand_mark(slide.id, seat.id, moment.attempt) if slide
                BoardTeam.new(seat_id: seat.id, name: seat.name, team: moment.team_of(seat), mark: mark,
                              given: answer && slide.prompt.keypad_of(answer.value)).freeze
              end
            end

            # What was, and what comes.
            def lesson(moment)
              { sheet: sheet(moment), following: moment.lesson.neighbour(moment.state.slide_id, 1),
                last_time: moment.last_time, for_teacher: for_teacher(moment), plan: plan(moment) }
            end

            # Where the lesson should be by now.
            def plan(moment)
              state = moment.state
              slide = state.live? && state.begun_at && moment.lesson.slide(state.slide_id)
              upto = slide && moment.lesson.planned_minutes(upto: slide.id)
              return nil unless upto

              Plan.new(begun_at: state.begun_at, from: (upto - slide.minutes.to_i) * 60, to: upto * 60).freeze
            end

            def step(moment)
              state = moment.state
              prompt = moment.slide&.prompt
              closed = state.opening && !state.open?
              return closed ? :eyes : :answers if moment.quiz
              return :reveal if moment.at_end? && !Rounds.ending(moment).over?
              return :eyes if prompt.nil? || state.shows?("standings")
              return :answers unless closed

              put_up(moment, prompt)
            end

            # What to put up next of what was answered.
            def put_up(moment, prompt)
              state = moment.state
              return :results unless state.shows?("results")
              return :key if prompt.keyed? && !state.shows?("key")

              moment.lesson.game?(moment.slide.id) ? :standings : :eyes
            end

            # In order of arrival, so that nothing moves when another one comes.
            def entries(moment)
              opening = moment.state.opening
              spotlit = moment.state.spotlights.map { |light| light["seat"] }
              prompt = moment.slide.prompt
              all = moment.unread.empty? ? moment.given : moment.given.merge(moment.unread.slice(*moment.names.keys))
              all.min_by(MOST_LISTED) { |_seat_id, answer| answer.arrival }.map do |seat_id, answer|
                read = answer.readable?
                Entry.new(seat_id: seat_id, name: moment.names[seat_id], value: (answer.value if read),
                          typed: (answer.typed_text unless read), remark: (prompt.remark(answer.value, moment.tally) if read),
                          writing: !answer.final && !answer.unfinished?(opening), unfinished: answer.unfinished?(opening),
                          late: answer.late, let_count: answer.let_count, by_line: answer.by_line,
                          conflicting_version: answer.conflicting_text,
                          spotlit: spotlit.include?(seat_id), received_at: answer.received_at).freeze
              end
            end

            # @return [Hash{Integer=>Gave}] seat id to what is on its tile, of those that have one
            def gave(moment)
              prompt = moment.slide.prompt
              moment.seat_statuses.first(MOST_LISTED).filter_map do |bird|
                answer = moment.given[bird.seat_id] or next

                short = prompt.short(answer.value)
                parts = prompt.tally_parts(answer.value, moment.tally)
                [bird.seat_id, Gave.new(short: short.length > SHORT ? "#{short[0, SHORT].rstrip}…" : short,
                                        mark: moment.record.mark(answer), parts: parts).freeze]
              end.to_h
            end

            # Slides for teachers only that stand just before or after the present one.
            def for_teacher(moment)
              slides = moment.lesson.slides
              at = moment.state.slide_id && moment.lesson.place(moment.state.slide_id)
              return slides.take_while { |slide| !slide.for_class } unless at

              before = slides[0...at].reverse.take_while { |slide| !slide.for_class }.reverse
              before + slides[(at + 1)..].take_while { |slide| !slide.for_class }
            end

            def sheet(moment)
              number = 0
              moment.lesson.stops.map do |slide|
                opening = moment.state.opening(slide.id)
                quiz = moment.lesson.quiz(slide.id)
                whole = quiz || (moment.lesson.round_at(slide.id) if moment.lesson.slide(slide.id).nil?)
                number += 1 unless whole
                Place.new(slide: slide, number: (number unless whole), section: whole || moment.lesson.section_of(slide.id),
                          here: slide.id == moment.state.slide_id,
                          open: !opening.nil? && opening.open? && moment.state.live?, done: !opening.nil?,
                          passed_over: !quiz && moment.passed_over?(slide.id),
                          count: (moment.given(slide.id).length if slide.prompt)).freeze
              end
            end
          end
        end
      end
    end
  end
end

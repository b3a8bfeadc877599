# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What each audience sees of a session, as plain values. Two devices whose views
      # are equal are sent the same bytes.
      module Views
        # Where a seat or its team stands. of:: how many there are; team:: the Standing of its team, where teams are ranked;
        # against:: Game::Comparison with an earlier time that the round was played, or nil
        # rank, gap and moved are nil where nobody is ranked; together:: then RoundResult::Together
        Standing = Struct.new(:rank, :points, :gap, :moved, :of, :team, :against, :together, keyword_init: true)
        Spotlight = Struct.new(:seat_id, :name, :value, keyword_init: true)
        Own = Struct.new(:value, :typed, :final, :late, :save_id, :status, :points, :sure, keyword_init: true)
        # What the team of a seat gives, where teams answer as one. set_by:: the name of who set it; own:: whether this seat did
        # final:: whether it is handed in
        TeamAnswer = Struct.new(:value, :set_by, :own, :final, keyword_init: true)
        # Where the session stands, alike for every audience.
        WHERE = %i[session_id phase title theme goal slide attempt place total open opened deadline clock eyes_up talk ink sound
                   quiz round].freeze
        # A quiz that the class is at. stage:: :waiting, :open or :closed; asked:: how many questions; limit:: seconds each
        # has, or nil; told:: whether students have been told how it went; rev:: changes with what the teacher does about
        # its time
        Quiz = Struct.new(:stage, :asked, :limit, :told, :rev, keyword_init: true)
        # What the teacher has put up.
        PUT_UP = %i[look key spotlights].freeze
        # The sheet that is drawn upon. page:: Ink.page; paper:: of a blank board, nil over a slide; pen:: whether it is out
        Sheet = Struct.new(:page, :paper, :pen, keyword_init: true)
        # What may be another thing for each seat.
        APART = %i[own standing order done pair team open deadline clock team_answer own_end].freeze
        # Who talks together. number:: as it is called out; names:: of all of them, or nil where nobody is to be named
        Pair = Struct.new(:number, :names, keyword_init: true)
        # copy:: whether there is a copy to look at, after the end
        # screen:: what the class screen shows, where it is drawn upon
        # ahead:: pictures of the next slide, to be fetched while nothing else is going on; done:: Done, at the end
        Seat = Struct.new(*WHERE, *PUT_UP, :tally, :may_change, :standing, :own, :order, :ahead, :done, :pair, :team, :screen,
                          :copy, :team_answer, :own_end, :ending, keyword_init: true)
        # The game round that the class is in, alike for every audience.
        #
        # stage:: :beginning, :question or :end; section_id, title:: of the round; asked:: how many questions it has
        # style:: Game::Style in which it is played, or will be; number:: which time it is, from 1; played:: how often it has been
        # one_touch:: whether a touch hands a single choice in; sounds:: see Options
        # answering, talk:: see Play; teams:: how many teams play, 0 where everybody does for themselves
        # named:: whether names may stand on the class screen
        Round = Struct.new(:stage, :section_id, :title, :asked, :style, :number, :played, :answering, :talk, :teams, :named,
                           :one_touch, :sounds, keyword_init: true)

        # What is told of a round's end so far.
        #
        # told:: Arrays of Game::Standings::Row, from the last rank on; none where nobody is ranked before the class
        # of:: how many steps there are; step:: how many of them were taken; runs:: whether they come by themselves
        # together:: RoundResult::Together; hardest:: Slide or nil, facility:: how right it was answered
        # climbers:: [Game::Standings::Row]; beat, compared:: how many did better than the last time, of how many; nil without one
        # The last five are there once all steps were taken.
        Ending = Struct.new(:told, :of, :step, :runs, :together, :hardest, :facility, :climbers, :beat, :compared,
                            keyword_init: true) do
          def over? = step >= of
        end

        # A student's own round, at its end.
        #
        # rank, of:: nil where nobody is ranked; gap:: to the rank before; team:: Standing of the team, or nil
        # best:: RoundResult::Best or nil; against:: Game::Comparison with an earlier time, or nil
        OwnEnd = Struct.new(:rank, :of, :points, :gap, :team, :best, :against, keyword_init: true)
        # How many questions a seat was asked, and how many it answered.
        Done = Struct.new(:asked, :answered, keyword_init: true)
        # seat_statuses:: their states; here:: how many are
        Screen = Struct.new(*WHERE, *PUT_UP, :order, :code, :seat_statuses, :here, :names, :answered, :tally, :page, :pages,
                            :standings,
                            :pairs, :teams, :together, :ending, keyword_init: true)

        # How many answers and students the Desk lists one by one; the charts and counts are of all.
        MOST_LISTED = 60
        # Letters of an answer on a student's tile.
        SHORT = 22

        # The views of seats, grouped: most seats see the same, and then a thousand of
        # them cost one view.
        # @param seat_ids [Array<Integer>]
        # @return [Hash{Seat=>Array<Integer>}] each distinct view with the seats that have it
        def self.seats(moment, seat_ids) = SeatViews.new(moment, common(moment)).by_view(seat_ids)

        # @return [Screen] the view of the class screen: nothing the teacher has not put there
        def self.screen(moment) = moment.once(:screen) { screen_of(moment) }

        def self.screen_of(moment)
          state = moment.state
          seat_statuses = moment.seat_statuses
          code_shown = !state.locked && (state.lobby? || (moment.options.code_throughout && state.live?))
          Screen.new(**where(moment), **put_up(moment), **page(moment), order: moment.order(nil),
                                                                        code: (moment.code if code_shown),
                                                                        seat_statuses: seat_statuses.map(&:state),
                                                                        here: seat_statuses.count(&:here),
                                                                        answered: moment.answered,
                                                                        names: names(moment),
                                                                        pairs: pairs(moment), teams: teams(moment),
                                                                        standings: shown_standings(moment),
                                                                        together: together(moment),
                                                                        ending: Rounds.ending(moment)).freeze
        end

        private_class_method :screen_of

        # @return [Desk] the teacher's view
        def self.desk(moment) = Desk.of(moment)

        # Where the session stands, alike for every audience; whether answers are open, as it is for seats without extra time.
        # @return [Hash] of WHERE
        def self.where(moment)
          state = moment.state
          { session_id: moment.id, phase: state.phase, title: moment.title, slide: moment.slide, attempt: moment.attempt,
            place: moment.place,
            total: moment.lesson.class_slides.length, theme: moment.lesson.details.theme,
            goal: (moment.lesson.details.goal if state.lobby?), eyes_up: state.eyes_up, opened: !state.opening.nil?,
            talk: state.talk, ink: sheet(state), **answering(moment, 1r), quiz: quiz(moment),
            round: Rounds.of(moment), sound: moment.lesson.sound? }
        end

        # Whether answers are open to a seat with that much time, and until when.
        # @param factor [Rational]
        # @return [Hash] :open, :deadline and :clock
        def self.answering(moment, factor)
          opening = moment.state.opening
          open = moment.state.open? && opening.open_for?(factor)
          deadline = opening.deadline_for(factor) if open
          { open: open, deadline: deadline, clock: (Clock.of(moment, opening, factor) if deadline) }
        end

        # @return [Quiz, nil]
        def self.quiz(moment)
          section = moment.quiz
          return nil unless section && moment.state.live?

          opening = moment.state.opening
          stage = if opening.nil? then :waiting
                  else
                    opening.open? ? :open : :closed
                  end
          given = moment.state.time_given.fetch(section.id, {}).values.sum
          Quiz.new(stage: stage, asked: moment.lesson.slides_of(section).count(&:prompt), limit: section.rules.to_h["limit"],
                   told: stage == :closed && section.quiz_rules["feedback"] != "none",
                   rev: [stage, opening&.opened_at, opening&.deadline, given].join(" ")).freeze
        end

        # @return [Sheet, nil] nil where the pen has not been
        def self.sheet(state)
          page = Ink.page(state)
          return nil unless state.live? && state.inked.include?(page)

          Sheet.new(page: page, paper: state.board && state.boards[state.board], pen: state.pen).freeze
        end
        private_class_method :sheet

        class << self
          private

          def put_up(moment)
            showing = moment.state.showing
            { look: moment.state.look, key: showing.key?("key"),
              spotlights: moment.state.spotlights.filter_map { |light| spotlight(moment, light) } }
          end

          # What the class gave, as much of it as goes on the page that is up.
          def page(moment)
            showing = moment.state.showing
            return { pages: 1, page: 0 } unless showing["results"]

            prompt = moment.slide.prompt
            pages = prompt.pages(moment.class_tally, moment.state.look["way"])
            number = showing.fetch("page", 0).clamp(0, pages - 1)
            { pages: pages, page: number, tally: prompt.page(moment.class_tally, moment.state.look["way"], number) }
          end

          def spotlight(moment, chosen)
            answer = moment.given[chosen["seat"]]
            seat = moment.seats.find { |other| other.id == chosen["seat"] }
            named = chosen["named"] && moment.options.names_shown
            answer && Spotlight.new(seat_id: seat.id, name: (seat.name if named), value: answer.value).freeze
          end

          # In the lobby, who is in which team: names, or how many where nobody is to be named.
          # @return [Array<Array(Team, Array<String>)>, nil]
          def teams(moment)
            return nil unless moment.state.lobby? && moment.teams.any?

            by_team = moment.seats.group_by(&:team_id)
            moment.teams.map do |team|
              [team, by_team.fetch(team.id, []).map { |seat| moment.options.names_shown ? seat.name : nil }]
            end
          end

          # @return [Array<Pair>, nil] nil while none are put up
          def pairs(moment)
            return nil unless moment.state.shows?("pairs")

            moment.once(:pairs) do
              moment.state.pairs.last.each_with_index.map do |group, place|
                names = moment.names.values_at(*group).compact if moment.options.names_shown
                Pair.new(number: place + 1, names: names).freeze
              end
            end
          end

          # What all seats see alike.
          def common(moment)
            # A board is looked through on the device.
            tally = moment.live_board? ? moment.class_tally : page(moment)[:tally]
            at = where(moment)
            Seat.new(**at, **put_up(moment), tally: tally, may_change: moment.may_change, ahead: ahead(moment),
                                             copy: moment.state.ended? && moment.options.own_copy,
                                             screen: (screen(moment) if at[:ink])).freeze
          end

          # What comes next may show what is right, so not before the question here is over.
          def ahead(moment)
            state = moment.state
            return [] if state.ended? || (moment.slide&.prompt && (state.opening.nil? || state.open?))

            coming = state.lobby? ? moment.lesson.stops.first : moment.lesson.neighbour(state.slide_id, 1)
            coming ? coming.all_pictures : []
          end

          def names(moment)
            moment.seat_statuses.map(&:name) if moment.state.lobby? && moment.options.names_shown
          end

          def shown_standings(moment)
            moment.standings.first(8) if moment.state.shows?("standings") && Rounds.ranked?(moment)
          end

          # What the class has together: where nobody is ranked, or nobody is to be named.
          def together(moment) = (moment.round.together if moment.state.shows?("standings") && !Rounds.ranked?(moment))
        end
      end
    end
  end
end

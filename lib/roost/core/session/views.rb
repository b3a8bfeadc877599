# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What each audience sees of a session, as plain values. Two devices whose views
      # are equal are sent the same bytes.
      module Views
        Standing = Struct.new(:rank, :points, :gap, :moved, :seats, keyword_init: true)
        Spotlight = Struct.new(:seat_id, :name, :value, keyword_init: true)
        Own = Struct.new(:value, :typed, :final, :late, :save_id, :status, :points, keyword_init: true)
        # Where the session stands, alike for every audience.
        WHERE = %i[session_id phase title theme goal slide attempt place total open opened deadline eyes_up sound].freeze
        # What the teacher has put up.
        PUT_UP = %i[look key spotlights].freeze
        # ahead:: pictures of the next slide, to be fetched while nothing else is going on; done:: Done, at the end
        Seat = Struct.new(*WHERE, *PUT_UP, :tally, :may_change, :standing, :own, :order, :ahead, :done, keyword_init: true)
        # How many questions a seat was asked, and how many it answered.
        Done = Struct.new(:asked, :answered, keyword_init: true)
        # birds:: their states; here:: how many are
        Screen = Struct.new(*WHERE, *PUT_UP, :order, :code, :birds, :here, :names, :answered, :tally, :page, :pages, :standings,
                            keyword_init: true)
        Place = Struct.new(:slide, :number, :section, :here, :open, :count, :done, :passed_over, keyword_init: true)
        # typed:: what can't be read as an answer, in place of a value; beside:: what another window wrote
        Entry = Struct.new(:seat_id, :name, :value, :typed, :beside, :remark, :writing, :unfinished, :late, :by_line, :spotlit,
                           :received_at, keyword_init: true)
        # What a student gave to the present question, for the tile. short:: in a few letters; mark:: 0 to 1, nil
        # where nothing is marked; parts:: what of the tally it is part of
        Gave = Struct.new(:short, :mark, :parts, keyword_init: true)
        Desk = Struct.new(*WHERE, :on_screen, :code, :room_for, :locked, :names_shown, :showing, :birds, :tally, :entries,
                          :answers, :game, :standings, :sheet, :missing, :expected, :stopped, :following, :for_teacher,
                          :set_aside, :gave, keyword_init: true)

        # How many answers and students the Desk lists one by one; the charts and counts are of all.
        MOST_LISTED = 60
        # Letters of an answer on a student's tile.
        SHORT = 22

        # The views of seats, grouped: most seats see the same, and then a thousand of
        # them cost one view.
        # @param seat_ids [Array<Integer>]
        # @return [Hash{Seat=>Array<Integer>}] each distinct view with the seats that have it
        def self.seats(moment, seat_ids)
          common = common(moment)
          seat_ids.group_by { |id| [own(moment, id), standing(moment, id), moment.order(id), done(moment, id)] }
                  .to_h do |(own, standing, order, done), ids|
            apart = own || standing || order || done
            [apart ? Seat.new(**common.to_h, own: own, standing: standing, order: order, done: done).freeze : common, ids]
          end
        end

        # @return [Screen] the view of the class screen: nothing the teacher has not put there
        def self.screen(moment) = moment.once(:screen) { screen_of(moment) }

        def self.screen_of(moment)
          state = moment.state
          birds = moment.birds
          code_shown = !state.locked && (state.lobby? || (moment.options.code_throughout && state.live?))
          Screen.new(**where(moment), **put_up(moment), **page(moment), order: moment.order(nil),
                                                                        code: (moment.code if code_shown),
                                                                        birds: birds.map(&:state),
                                                                        here: birds.count(&:here),
                                                                        answered: moment.answered,
                                                                        names: names(moment),
                                                                        standings: shown_standings(moment)).freeze
        end

        private_class_method :screen_of

        # @return [Desk] the teacher's view
        def self.desk(moment)
          state = moment.state
          prompt = moment.slide&.prompt
          played = !moment.slide.nil? && moment.lesson.game?(moment.slide.id)
          Desk.new(**where(moment), code: moment.code, showing: state.showing, room_for: state.room_for,
                                    locked: state.locked, names_shown: moment.options.names_shown,
                                    gave: prompt ? gave(moment) : {},
                                    stopped: moment.stopped, missing: moment.missing.map(&:name), expected: moment.roll.length,
                                    on_screen: screen(moment), birds: moment.birds, sheet: sheet(moment),
                                    tally: prompt && moment.tally, entries: prompt && entries(moment),
                                    answers: prompt ? moment.given.length : 0,
                                    game: played,
                                    standings: (moment.standings if played && state.opening && !state.open?),
                                    following: moment.lesson.neighbour(state.slide_id, 1),
                                    set_aside: state.set_aside?(state.slide_id),
                                    for_teacher: for_teacher(moment)).freeze
        end

        class << self
          private

          def where(moment)
            state = moment.state
            { session_id: moment.id, phase: state.phase, title: moment.title, slide: moment.slide, attempt: moment.attempt,
              place: moment.place,
              total: moment.lesson.class_slides.length, theme: moment.lesson.details.theme,
              goal: (moment.lesson.details.goal if state.lobby?), eyes_up: state.eyes_up, open: state.open?,
              opened: !state.opening.nil?, deadline: (state.opening.deadline if state.open?), sound: moment.lesson.sound? }
          end

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

          def done(moment, seat_id)
            return nil unless moment.state.ended?

            asked = moment.asked_of(seat_id)
            Done.new(asked: asked.length, answered: asked.count { |slide| moment.given(slide.id).key?(seat_id) }).freeze
          end

          # What all seats see alike.
          def common(moment)
            # A board is looked through on the device.
            tally = moment.live_board? ? moment.class_tally : page(moment)[:tally]
            Seat.new(**where(moment), **put_up(moment), tally: tally, may_change: moment.may_change,
                                                        ahead: ahead(moment)).freeze
          end

          # What comes next may show what is right, so not before the question here is over.
          def ahead(moment)
            state = moment.state
            return [] if state.ended? || (moment.slide&.prompt && (state.opening.nil? || state.open?))

            coming = state.lobby? ? moment.lesson.class_slides.first : moment.lesson.neighbour(state.slide_id, 1)
            coming ? coming.all_pictures : []
          end

          # A seat learns how it did once the teacher has put the key or the standings up.
          def own(moment, seat_id)
            slide = moment.slide
            return nil unless slide&.prompt

            answer = moment.answer(slide.id, seat_id)
            told = moment.state.shows?("key") || moment.state.shows?("standings")
            outcome = moment.outcome(slide.id, seat_id) if told && slide.prompt.keyed?
            return nil unless answer || outcome

            value = answer.value if answer&.readable?
            Own.new(value: value, typed: answer&.typed, final: answer&.final, late: answer&.late,
                    save_id: answer&.save_id, status: outcome&.status,
                    points: outcome&.points).freeze
          end

          def standing(moment, seat_id)
            return nil unless moment.state.shows?("standings")

            row = moment.standings_by_seat[seat_id]
            row && Standing.new(rank: row.rank, points: row.points, gap: row.gap, moved: row.moved,
                                seats: moment.seats.length).freeze
          end

          def names(moment)
            moment.birds.map(&:name) if moment.state.lobby? && moment.options.names_shown
          end

          def shown_standings(moment)
            return nil unless moment.state.shows?("standings")

            rows = moment.standings.first(8)
            moment.options.names_shown ? rows : rows.map { |row| row.dup.tap { |copy| copy.name = nil }.freeze }
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
                        late: answer.late, by_line: answer.by_line, beside: answer.beside_text,
                        spotlit: spotlit.include?(seat_id), received_at: answer.received_at).freeze
            end
          end

          # @return [Hash{Integer=>Gave}] seat id to what is on its tile, of those that have one
          def gave(moment)
            prompt = moment.slide.prompt
            moment.birds.first(MOST_LISTED).filter_map do |bird|
              answer = moment.given[bird.seat_id] or next

              short = prompt.short(answer.value)
              [bird.seat_id, Gave.new(short: short.length > SHORT ? "#{short[0, SHORT].rstrip}…" : short,
                                      mark: prompt.mark(answer.value), parts: prompt.tally_parts(answer.value)).freeze]
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
            moment.lesson.class_slides.each_with_index.map do |slide, place|
              opening = moment.state.opening(slide.id)
              Place.new(slide: slide, number: place + 1, section: moment.lesson.section_of(slide.id),
                        here: slide.id == moment.state.slide_id,
                        open: !opening.nil? && opening.open? && moment.state.live?, done: !opening.nil?,
                        passed_over: moment.passed_over?(slide.id),
                        count: (moment.given(slide.id).length if slide.prompt)).freeze
            end
          end
        end
      end
    end
  end
end

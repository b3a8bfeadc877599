# frozen_string_literal: true

module Roost
  module Core
    module Room
      # What each audience sees of a session, as plain values. Two devices whose views
      # are equal are sent the same bytes.
      module Views
        Standing = Struct.new(:rank, :points, :gap, :moved, :seats, keyword_init: true)
        Spotlight = Struct.new(:seat_id, :name, :value, keyword_init: true)
        Own = Struct.new(:value, :typed, :final, :late, :save_id, :status, :points, keyword_init: true)
        # Where the session stands, alike for every audience.
        WHERE = %i[session_id phase title theme goal slide place total open opened deadline eyes_up sound].freeze
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
        Desk = Struct.new(*WHERE, :on_screen, :code, :room_for, :locked, :names_shown, :showing, :birds, :tally, :entries,
                          :answers, :game, :standings, :sheet, :following, :asides, :aside, keyword_init: true)

        # How many answers and students the Desk lists one by one; the charts and counts are of all.
        MOST_LISTED = 60

        # The views of seats, grouped: most seats see the same, and then a thousand of
        # them cost one view.
        # @param seat_ids [Array<Integer>]
        # @return [Hash{Seat=>Array<Integer>}] each distinct view with the seats that have it
        def self.seats(snapshot, seat_ids)
          common = common(snapshot)
          seat_ids.group_by { |id| [own(snapshot, id), standing(snapshot, id), snapshot.order(id), done(snapshot, id)] }
                  .to_h do |(own, standing, order, done), ids|
            apart = own || standing || order || done
            [apart ? Seat.new(**common.to_h, own: own, standing: standing, order: order, done: done).freeze : common, ids]
          end
        end

        # @return [Screen] the view of the class screen: nothing the teacher has not put there
        def self.screen(snapshot)
          state = snapshot.state
          birds = snapshot.birds
          code_shown = !state.locked && (state.lobby? || (snapshot.options.code_throughout && state.live?))
          Screen.new(**where(snapshot), **put_up(snapshot), **page(snapshot), order: snapshot.order(nil),
                                                                              code: (snapshot.code if code_shown),
                                                                              birds: birds.map(&:state),
                                                                              here: birds.count(&:here),
                                                                              answered: snapshot.answered,
                                                                              names: names(snapshot),
                                                                              standings: shown_standings(snapshot)).freeze
        end

        # @return [Desk] the teacher's view
        def self.desk(snapshot)
          state = snapshot.state
          prompt = snapshot.slide&.prompt
          played = !snapshot.slide.nil? && snapshot.lesson.game?(snapshot.slide.id)
          Desk.new(**where(snapshot), code: snapshot.code, showing: state.showing, room_for: state.room_for,
                                      locked: state.locked, names_shown: snapshot.options.names_shown,
                                      on_screen: screen(snapshot), birds: snapshot.birds, sheet: sheet(snapshot),
                                      tally: prompt && snapshot.tally, entries: prompt && entries(snapshot),
                                      answers: prompt ? snapshot.given.length : 0,
                                      game: played,
                                      standings: (snapshot.standings if played && state.run && !state.open?),
                                      following: snapshot.lesson.neighbour(state.slide_id, 1),
                                      aside: state.aside?(state.slide_id),
                                      asides: asides(snapshot)).freeze
        end

        class << self
          private

          def where(snapshot)
            state = snapshot.state
            { session_id: snapshot.id, phase: state.phase, title: snapshot.title, slide: snapshot.slide, place: snapshot.place,
              total: snapshot.lesson.class_slides.length, theme: snapshot.lesson.details.theme,
              goal: (snapshot.lesson.details.goal if state.lobby?), eyes_up: state.eyes_up, open: state.open?,
              opened: !state.run.nil?, deadline: (state.run.deadline if state.open?), sound: snapshot.lesson.sound? }
          end

          def put_up(snapshot)
            showing = snapshot.state.showing
            { look: snapshot.state.look, key: showing.key?("key"),
              spotlights: snapshot.state.spotlights.filter_map { |light| spotlight(snapshot, light) } }
          end

          # What the class gave, as much of it as goes on the page that is up.
          def page(snapshot)
            showing = snapshot.state.showing
            return { pages: 1, page: 0 } unless showing["results"]

            prompt = snapshot.slide.prompt
            pages = prompt.pages(snapshot.class_tally, snapshot.state.look["way"])
            number = showing.fetch("page", 0).clamp(0, pages - 1)
            { pages: pages, page: number, tally: prompt.page(snapshot.class_tally, snapshot.state.look["way"], number) }
          end

          def spotlight(snapshot, chosen)
            answer = snapshot.given[chosen["seat"]]
            seat = snapshot.seats.find { |other| other.id == chosen["seat"] }
            named = chosen["named"] && snapshot.options.names_shown
            answer && Spotlight.new(seat_id: seat.id, name: (seat.name if named), value: answer.value).freeze
          end

          def done(snapshot, seat_id)
            return nil unless snapshot.state.ended?

            asked = snapshot.asked_of(seat_id)
            Done.new(asked: asked.length, answered: asked.count { |slide| snapshot.given(slide.id).key?(seat_id) }).freeze
          end

          # What all seats see alike.
          def common(snapshot)
            # A board is looked through on the device.
            tally = snapshot.live_board? ? snapshot.class_tally : page(snapshot)[:tally]
            Seat.new(**where(snapshot), **put_up(snapshot), tally: tally, may_change: snapshot.may_change,
                                                            ahead: ahead(snapshot)).freeze
          end

          # What comes next may show what is right, so not before the question here is over.
          def ahead(snapshot)
            state = snapshot.state
            return [] if state.ended? || (snapshot.slide&.prompt && (state.run.nil? || state.open?))

            coming = state.lobby? ? snapshot.lesson.class_slides.first : snapshot.lesson.neighbour(state.slide_id, 1)
            coming ? coming.all_pictures : []
          end

          # A seat learns how it did once the teacher has put the key or the standings up.
          def own(snapshot, seat_id)
            slide = snapshot.slide
            return nil unless slide&.prompt

            answer = snapshot.answer(slide.id, seat_id)
            told = snapshot.state.shows?("key") || snapshot.state.shows?("standings")
            outcome = snapshot.outcome(slide.id, seat_id) if told && slide.prompt.keyed?
            return nil unless answer || outcome

            value = answer.value if answer&.readable?
            Own.new(value: value, typed: answer&.typed, final: answer&.final, late: answer&.late,
                    save_id: answer&.save_id, status: outcome&.status,
                    points: outcome&.points).freeze
          end

          def standing(snapshot, seat_id)
            return nil unless snapshot.state.shows?("standings")

            row = snapshot.standings_by_seat[seat_id]
            row && Standing.new(rank: row.rank, points: row.points, gap: row.gap, moved: row.moved,
                                seats: snapshot.seats.length).freeze
          end

          def names(snapshot)
            snapshot.birds.map(&:name) if snapshot.state.lobby? && snapshot.options.names_shown
          end

          def shown_standings(snapshot)
            return nil unless snapshot.state.shows?("standings")

            rows = snapshot.standings.first(8)
            snapshot.options.names_shown ? rows : rows.map { |row| row.dup.tap { |copy| copy.name = nil }.freeze }
          end

          # In order of arrival, so that nothing moves when another one comes.
          def entries(snapshot)
            run = snapshot.state.run
            spotlit = snapshot.state.spotlights.map { |light| light["seat"] }
            prompt = snapshot.slide.prompt
            all = snapshot.given.merge(snapshot.unread.slice(*snapshot.names.keys))
            all.min_by(MOST_LISTED) { |_seat_id, answer| answer.arrival }.map do |seat_id, answer|
              read = answer.readable?
              Entry.new(seat_id: seat_id, name: snapshot.names[seat_id], value: (answer.value if read),
                        typed: (answer.typed_text unless read), remark: (prompt.remark(answer.value, snapshot.tally) if read),
                        writing: !answer.final && !answer.unfinished?(run), unfinished: answer.unfinished?(run),
                        late: answer.late, by_line: answer.by_line, beside: answer.beside_text,
                        spotlit: spotlit.include?(seat_id), received_at: answer.received_at).freeze
            end
          end

          # Slides for teachers only that stand just before or after the present one.
          def asides(snapshot)
            slides = snapshot.lesson.slides
            at = snapshot.state.slide_id && snapshot.lesson.place(snapshot.state.slide_id)
            return slides.take_while { |slide| !slide.for_class } unless at

            before = slides[0...at].reverse.take_while { |slide| !slide.for_class }.reverse
            before + slides[(at + 1)..].take_while { |slide| !slide.for_class }
          end

          def sheet(snapshot)
            snapshot.lesson.class_slides.each_with_index.map do |slide, place|
              run = snapshot.state.run(slide.id)
              Place.new(slide: slide, number: place + 1, section: snapshot.lesson.section_of(slide.id),
                        here: slide.id == snapshot.state.slide_id,
                        open: !run.nil? && run.open? && snapshot.state.live?, done: !run.nil?,
                        passed_over: snapshot.passed_over?(slide.id),
                        count: (snapshot.given(slide.id).length if slide.prompt)).freeze
            end
          end
        end
      end
    end
  end
end

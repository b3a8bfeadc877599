# frozen_string_literal: true

module Roost
  module Web
    # A student's seat. The token in the address is all it is known by.
    class Seat < App
      include ItemIdPlaceholders
      include Brief
      include Queued

      # Notes of one seat: a device sends one every second at most.
      PACE = { burst: 12, rate: 2 }.freeze
      MOST_BYTES = 40_000
      NOT_KNOWN = "This seat is not known any more. What you wrote here is on this device only."
      ELSEWHERE = ["You continued on another device",
                   "What was still waiting here is sent now. To continue here, join again with your name and number, or your " \
                   "pass."].freeze
      TAKEN_OUT = ["You are no longer in this lesson",
                   "Your teacher has removed you from this session. To come back, join again with the code on the board."].freeze
      NOT_HERE = ["This seat is not known", "Join again with the code on the board."].freeze
      set :pace, Pace.new(**PACE)

      # What shows a page of ours where there is no line (assets/js/seat/worker.js). Changes with the assets,
      # so that browsers take the new ones.
      get "/worker.js" do
        content_type "text/javascript"
        script = File.read(File.join(Settings::ROOT, "public", asset("worker.js")))
        "#{script}\n// #{Rendering.manifest.fetch("stamp")}\n"
      end

      get "/offline" do
        page("seat/offline", title: "No line", layout: "layouts/plain", bundle: "seat")
      end

      get "/:token/ink" do |token|
        row = Store::Sessions.new.find(seat(token)[:session_id])
        row.deleted ? not_found : Ink.strokes(self, row)
      end

      get "/:token" do |token|
        seat = seat(token)
        row = Store::Sessions.new.find(seat[:session_id])
        not_found if row.deleted
        redirect Copies.path(seat[:id]), 303 if params.key?("copy")

        Operations::VisitSeat.new.call(seat, row, device: DeviceCookie.of(request), browser: request.user_agent.to_s)
        return alone(row, seat, token) if row.self_paced

        view = Core::Session::Views.seats(Store::Moments.new.at_seat(row, seat[:id]), [seat[:id]]).keys.first
        html = page("seat/show", title: SeatNews.title(view), layout: "layouts/plain", bundle: "seat", theme: view.theme,
                                 view: view, now: row.now, token: token, name: seat[:name], number: seat[:number])
        view.slide ? ItemIdPlaceholders.fill(html, Operations::SaveAnswer.names(seat, view.slide)) : html
      end

      FORM = "/:token"
      extend Kinds::Routes

      # A picture for a card, as bytes; answers with what the card has to hold.
      post "/:token/pictures" do |token|
        kept = Operations::KeepSeatPicture.new.call(seat(token), request.body)
        content_type :json
        status 422 unless kept.ok?
        JSON.generate(kept.ok? ? kept.value.to_document.except("alt") : { message: kept.reason })
      end

      # By which steps the points of a question came about, once this seat was told how it went.
      get "/:token/why/:slide/:attempt" do |token, slide_id, attempt|
        steps = Operations::WhyPoints.new.call(seat(token), slide_id, whole(attempt))
        steps ? partial("seat/why", steps: steps) : not_found
      end

      # What the student has noted so far, by slide.
      get "/:token/notes" do |token|
        content_type :json
        notes = Store::Notes.new.of_seat(noting(token)[:id])
        JSON.generate(notes.transform_values { |note| { text: note.text, saved: note.save_id, attempt: note.attempt } })
      end

      # A note, sent as the draft of an answer is.
      post "/:token/notes" do |token|
        content_type :json
        seat = noting(token)
        halt 429, JSON.generate(state: "unsent") unless settings.pace.turn?(seat[:id])
        said = Operations::KeepNote.new.call(seat, Store::Sessions.new.find(seat[:session_id]), note)
        status 422 if said.state == "refused"
        JSON.generate(said.to_h.compact)
      end

      # Text that can't be taken as an answer, for the teacher as it was typed.
      post "/:token/typed" do |token|
        content_type :json
        seat = Store::Seats.new.then { |seats| seats.by_token(token) || seats.by_former_token(token) } || noting(token)
        halt 429, JSON.generate(state: "unsent") unless settings.pace.turn?(seat[:id])
        sent = Operations::SendTyped.new.call(seat, note)
        status 422 unless sent.ok?
        JSON.generate(sent.ok? ? { state: "sent" } : { state: "refused", message: sent.reason })
      end

      # A picture this seat has sent.
      get "/:token/pictures/:file" do |token, file|
        not_found unless Store::Media.new.sent_by?(seat(token)[:id], file)
        path, type = Store::Media.new.find(file)
        not_found unless path
        cache_control :private, :immutable, max_age: 86_400
        send_file path, type: type, disposition: "inline"
      end

      helpers do
        # @return [Array(Core::Prompt, Core::Session::ItemIds)] the question that is open here, and what its parts are called
        def asked(token)
          said = Operations::AskAbout.new.call(seat(token), text("slide"))
          halt said.reason == Operations::AskAbout::TOO_MANY ? 429 : 409 unless said.ok?
          said.value
        end

        # @return [Hash] :id and :session_id of a seat
        def noting(token)
          Store::Seats.new.by_token(token) || halt(404, JSON.generate(state: "refused", message: NOT_KNOWN))
        end

        # @return [Hash, nil] what was sent; nil where it can't be read
        def note
          body = request.body.read(MOST_BYTES + 1).to_s
          body.bytesize > MOST_BYTES ? nil : JSON.parse(body, max_nesting: 4)
        rescue JSON::ParserError, EncodingError
          nil
        end

        # The page of who goes through an assignment.
        def alone(row, seat, token)
          page("sitting/show", title: row.title, layout: "layouts/plain", bundle: "seat", token: token, name: seat[:name],
                               number: seat[:number], open_to: open_until(row, seat),
                               row: row, theme: Store::Sessions.new.lesson_of(row).details.theme, rev: row.version)
        end

        # @return [Float] until when the seat of an assignment may be opened (epoch seconds)
        def open_until(row, seat) = Operations::TakeSitting.task(row, seat[:id]).ends_at

        def seat(token)
          Store::Seats.new.by_token(token) || halt(*without_seat(token))
        end

        # What a device gets that has a seat no more, or never had one: with what it has kept of it.
        def without_seat(token)
          seats = Store::Seats.new
          return gone(token, 410, *ELSEWHERE) if seats.by_former_token(token)

          seats.removed?(token) ? gone(token, 410, *TAKEN_OUT) : gone(token, 404, *NOT_HERE)
        end

        # What waits on the device is sent from there; what isn't taken any more stands there.
        def gone(token, code, heading, words)
          return [code, error_page(heading, words)] if htmx?

          [code, page("seat/gone", title: heading, layout: "layouts/plain", bundle: "seat", heading: heading, text: words,
                                   token: token[0, 40])]
        end
      end
    end
  end
end

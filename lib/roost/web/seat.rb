# frozen_string_literal: true

module Roost
  module Web
    # A student's seat. The token in the address is all it is known by.
    class Seat < App
      get "/:token" do |token|
        seat = seat(token)
        record = Store::Sessions.new.find(seat[:session_id])
        not_found if record.deleted

        Store::Seats.new.looked(seat[:id])
        snapshot = Store::Rooms.new.snapshot(record)
        view = Core::Room::Views.seats(snapshot, [seat[:id]]).keys.first
        Store::Answers.new.delivered(record.id, record.state.slide_id, [seat[:id]]) if record.state.open?
        page("seat/show", title: record.title, layout: "layouts/plain", bundle: "seat", theme: view.theme, view: view,
                          now: record.now, token: token, name: seat[:name])
      end

      # A picture for a card, as bytes; answers with what the card has to hold.
      post "/:token/pictures" do |token|
        kept = Operations::KeepSeatPicture.new.call(seat(token), request.body)
        content_type :json
        status 422 unless kept.ok?
        JSON.generate(kept.ok? ? kept.value.to_document.except("alt") : { message: kept.reason })
      end

      helpers do
        def seat(token)
          Store::Seats.new.by_token(token) || halt(404,
                                                   error_page("This seat is not known",
                                                              "Join again with the code on the board."))
        end
      end
    end
  end
end

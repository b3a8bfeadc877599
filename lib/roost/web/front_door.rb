# frozen_string_literal: true

require "rqrcode"

module Roost
  module Web
    # Where students come in: a code and a name, no account. Wrong codes are counted by
    # address; a class behind one address is never held up by it, since a session that
    # somebody there has joined (or started) stays open to that address.
    class FrontDoor < App
      WRONG_CODES = 20
      PERIOD = 60
      CROWD = "Very many are joining from here just now. Wait a minute, then try again."
      KNOWN_FOR = 4 * 3600

      # The session's code is good from this address, however many wrong ones it sends.
      def self.trust(address, code) = Store::Counters.new.write("known:#{address}:#{code}", 1, expires_in: KNOWN_FOR)

      get("/") { join_page }

      get "/join/:code.svg" do |code|
        content_type "image/svg+xml"
        RQRCode::QRCode.new("#{Roost.settings.base_url}/join/#{Core::JoinCode.read(code) || not_found}")
                       .as_svg(module_size: 8, use_path: true, viewbox: true, color: "1e1b2e", fill: "fffdf8", offset: 16)
      end

      get("/join/:code") { |code| join_page(code: code) }

      post "/join" do
        code = params["code"].to_s[0, 40]
        halt 429, join_page(code: code, refusal: too_many) if shut_out?(code)
        halt 429, join_page(code: code, refusal: CROWD) if crowd?

        token = Operations::JoinSession.new.call(code, params["name"])
        if token.ok?
          FrontDoor.trust(Address.of(request), Core::JoinCode.read(code))
          redirect "/seat/#{token.value}", 303
        end
        count_wrong(code)
        status 422
        join_page(code: code, refusal: token.reason)
      end

      helpers do
        def join_page(code: nil, refusal: nil)
          page("front/join", title: "Join a lesson", layout: "layouts/plain", bundle: "seat", code: code,
                             name: params["name"].to_s[0, 80], refusal: refusal)
        end

        def too_many = "Too many wrong codes from here. Wait a minute, then check the code on the board."

        def shut_out?(code)
          counters = Store::Counters.new
          counters.read("wrong:#{Address.of(request)}").to_i >= WRONG_CODES &&
            counters.read("known:#{Address.of(request)}:#{Core::JoinCode.read(code)}").nil?
        end

        def crowd?
          Store::Counters.new.increment("joins:#{Address.of(request)}", expires_in: PERIOD) > Roost.settings.joins_a_minute
        end

        def count_wrong(code)
          return if Operations::JoinSession.session(code).ok? # the code was right, the name was not

          Store::Counters.new.increment("wrong:#{Address.of(request)}", expires_in: PERIOD)
        end
      end
    end
  end
end

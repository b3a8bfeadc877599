# frozen_string_literal: true

require "rqrcode"

module Roost
  module Web
    # Joining: a code and a name, no account and no cookie. What limits there are to trying, JoinLimits
    # says.
    class Join < App
      include JoinPage

      TOO_MANY = "Too many wrong codes from here. Wait a minute, then check the code on the board."
      CROWD = "Very many are joining from here just now. Wait a minute, then try again."

      get "/:code.svg" do |code|
        content_type "image/svg+xml"
        RQRCode::QRCode.new("#{Roost.settings.base_url}/join/#{Core::JoinCode.read(code) || not_found}")
                       .as_svg(module_size: 8, use_path: true, viewbox: true, color: "1e1b2e", fill: "fffdf8", offset: 16)
      end

      get("/:code") { |code| join_page(code: code) }

      post "/" do
        code = params["code"].to_s[0, 40]
        halt 429, join_page(code: code, refusal: TOO_MANY) if JoinLimits.shut_out?(address, Core::JoinCode.read(code))
        halt 429, join_page(code: code, refusal: CROWD) if JoinLimits.crowd?(address)

        token = Operations::JoinSession.new.call(code, params["name"])
        if token.ok?
          JoinLimits.trust(address, Core::JoinCode.read(code))
          redirect "/seat/#{token.value}", 303
        end
        # The code may have been right, and the name not.
        JoinLimits.wrong(address) unless Operations::JoinSession.session(code).ok?
        status 422
        join_page(code: code, refusal: token.reason)
      end

      helpers do
        def address = Address.of(request)
      end
    end
  end
end

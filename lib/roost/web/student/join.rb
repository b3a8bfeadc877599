# frozen_string_literal: true

module Roost
  module Web
    # Joining: a code, then what the session asks for; no account. A cookie says which device it is (DeviceCookie), and
    # nothing else. What limits there are to trying, JoinLimits says.
    class Join < App
      include JoinPage

      TOO_MANY = "Too many wrong codes from here. Wait a minute, then check the code on the board."
      CROWD = "Very many are joining from here just now. Wait a minute, then try again."
      MANY_REFUSED = "That didn't work either, and there were many tries from here. Ask your teacher, or wait a minute."

      # Of a code that stands for something.
      get "/:code.svg" do |code|
        read = Core::JoinCode.read(code[0, 40])
        not_found unless read && Store::Sessions.new.by_code(read)
        content_type "image/svg+xml"
        QrCodes.svg(Roost.settings.join_link(read))
      end

      get "/:code" do |code|
        device
        entry_page(open_session(code[0, 40]))
      end

      # Whoever was here before, by their name and the number they were given.
      post "/:code/back" do |code|
        row = open_session(code[0, 40])
        back = Operations::ComeBack.new.call(row, text("name"), text("number"))
        refused(row, back.reason) unless back.ok?
        redirect "/seat/#{back.value}", 303
      end

      # By code alone, to what the session asks for, or with a name at once; a pass or the code of a class leads
      # to their pages.
      post "/" do
        code = text("code").to_s[0, 40]
        pass = Core::StudentPass.read(code)
        redirect "/pass/#{pass}", 303 if pass
        group = Core::ClassCode.read(code)
        redirect "/class/#{group}", 303 if group
        row = open_session(code)
        params.key?("name") ? come_in(code, row) : redirect("/join/#{row.code}", 303)
      end

      post("/:code") { |code| come_in(code[0, 40], open_session(code[0, 40])) }

      helpers do
        def address = Address.of(request)

        # By which this device is known, from now on if it was not.
        def device = @device ||= DeviceCookie.of(request) || DeviceCookie.give(response)

        # The session a code stands for; else the page where codes are typed, saying why not. A right one always does.
        def open_session(code)
          found = Operations::JoinSession.session(code)
          return found.value if found.ok?

          halt 429, join_page(code: code, refusal: TOO_MANY) if JoinLimits.wrong?(address)

          halt 422, join_page(code: code, refusal: found.reason)
        end

        # Who is refused costs nobody else their turn.
        def come_in(code, row)
          halt 429, entry_page(row, refusal: CROWD) if JoinLimits.crowd?(address, row.id)

          token = token_for(code, row)
          refused(row, token.reason) unless token.ok?

          JoinLimits.came_in(address, row.id)
          redirect "/seat/#{token.value}", 303
        end

        def refused(row, reason)
          many = JoinLimits.refused?(address, row.id)
          halt many ? 429 : 422, entry_page(row, refusal: many ? MANY_REFUSED : reason)
        end

        # @return [Core::Reading] of a seat's token
        def token_for(code, row)
          unless row.options.entry == "pass"
            said = { student_id: number("student"), extra: text("extra"), team_id: number("team"),
                     pass: text("pass").to_s[0, 40] }
            return Operations::JoinSession.new.call(code, text("name"), row: row, device: device, **said)
          end

          Operations::EnterByPass.new.call(text("pass").to_s[0, 40], row.id)
        end
      end
    end
  end
end

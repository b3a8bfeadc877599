# frozen_string_literal: true

require "json"

module Roost
  module Web
    # Where receivers of handheld keypads knock, ask what is on, and tell what was pressed (docs/KEYPADS.md).
    class Keypads < App
      before { content_type :json }

      post "/" do
        halt 429, JSON.generate({ message: Join::TOO_MANY }) if JoinLimits.shut_out?(Address.of(request), nil)

        token = Operations::Keypads.new.knock(text("code").to_s[0, 40], text("name"))
        JoinLimits.wrong(Address.of(request)) unless token.ok?
        said(token, :token)
      end

      get "/:token" do |token|
        now = Operations::Keypads.new.status(token[0, 40]) || unknown
        JSON.generate({ state: now.state, phase: now.phase, takes: now.takes, open: now.open,
                        keypads: now.keypads.transform_values { |seat| seat[:name] } })
      end

      post "/:token/events" do |token|
        message = params.slice("keypad", "answer", "student", "battery", "range")
        said(Operations::Keypads.new.event(token[0, 40], message) || unknown, :done)
      end

      helpers do
        def unknown = halt(404, JSON.generate({ message: "This receiver isn't known." }))

        def said(reading, name)
          status 422 unless reading.ok?
          JSON.generate(reading.ok? ? { name => reading.value } : { message: reading.reason })
        end
      end
    end
  end
end

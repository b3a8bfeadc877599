# frozen_string_literal: true

require "json"

module Roost
  module Web
    # Where receivers of handheld keypads knock, ask what is on, and tell what was pressed (docs/KEYPADS.md).
    class Keypads < App
      # Events of one receiver: a class that answers at once, and then some.
      PACE = { burst: 400, rate: 40 }.freeze
      TOO_FAST = "That was too fast. Wait a moment, then try again."
      set :pace, Pace.new(**PACE)

      before { content_type :json }

      post "/" do
        token = Operations::Keypads.new.knock(text("code").to_s[0, 40], text("name"))
        halt 429, JSON.generate({ message: Join::TOO_MANY }) if !token.ok? && JoinLimits.wrong?(Address.of(request))
        said(token, :token)
      end

      get "/:token" do |token|
        now = Operations::Keypads.new.status(token[0, 40]) || unknown
        JSON.generate({ **now.to_h.slice(:state, :phase, :question, :takes, :keys, :open),
                        keypads: now.keypads.transform_values { |seat| seat[:name] } })
      end

      post "/:token/events" do |token|
        halt 429, JSON.generate({ message: TOO_FAST }) unless settings.pace.turn?(token[0, 40])
        message = params.slice("keypad", "question", "answer", "student", "battery", "range")
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

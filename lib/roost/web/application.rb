# frozen_string_literal: true

require "rack"
require "rack/attack"
require "rack/session"
require "rack/protection"

module Roost
  module Web
    # The whole program as one Rack application: what guards the door, then one small
    # app an audience. Seats, screens and answers carry no cookie.
    module Application
      POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; font-src 'self'; " \
               "connect-src 'self'; media-src 'self' blob:; frame-src 'self' https:; " \
               "form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
      HEADERS = { "content-security-policy" => POLICY, "referrer-policy" => "no-referrer",
                  "x-content-type-options" => "nosniff", "cache-control" => "no-store", "x-frame-options" => "DENY",
                  "cross-origin-opener-policy" => "same-origin",
                  "permissions-policy" => "camera=(), microphone=(self), geolocation=()" }.freeze
      SIGN_INS = { limit: 30, period: 60 }.freeze
      MEGABYTE = 1024 * 1024
      # The largest request each address takes; anything else takes the last.
      BODIES = { %r{\A/lessons/\d+/slides/\w+/clips/} => 201 * MEGABYTE,
                 %r{\A/lessons/\d+/(?:imports|pictures)\z} => 52 * MEGABYTE,
                 // => 12 * MEGABYTE }.freeze

      # @return [Live::Engine] not started yet
      def self.engine
        Live::Engine.new(
          renderer: -> { Fragments.new },
          expire: ->(session_id) { Operations::CommandSession.new.call(session_id, "expire") },
          rehearse: ->(session_id) { Operations::PracticeClass.new.carry_on(session_id) }
        )
      end

      # @param engine [Live::Engine]
      def self.build(engine)
        teachers = teachers(engine)
        Rack::Builder.new do
          use Headers, HEADERS
          use BodyLimit, BODIES
          use Rack::Attack
          map("/assets") { run Application.assets }
          map("/media") { run Media }
          map("/given") { run Given }
          map("/stream/seat") { run Streams.new(engine, :seat) }
          map("/stream/screen") { run Streams.new(engine, :screen) }
          map("/answers") { run Answers.new(engine) }
          map "/seat" do
            use Rack::Deflater
            run Seat
          end
          map("/screen") { run Screen }
          map("/outbox") { run Outbox }
          run teachers
        end.to_app
      end

      def self.teachers(engine)
        settings = Roost.settings
        Rack::Builder.new do
          use Rack::Session::Cookie, key: "roost", secrets: settings.session_secret, same_site: :lax, httponly: true,
                                     secure: settings.secure_cookies?, expire_after: 14 * 24 * 3600
          use SameOrigin
          use Authentication
          map("/stream/desk") { run Streams.new(engine, :desk) }
          map("/lessons") do
            use Builder
            use Additions
            use Preview
            run Lessons
          end
          map("/bank") { run Bank }
          map("/standards") { run Standards }
          map("/sheets") { run Sheets }
          map("/pictures") { run Library }
          map("/desk") { run Desk }
          map("/results") { run Results }
          run FrontDoor
        end
      end

      # Built files carry a fingerprint in their name and are good for ever.
      def self.assets
        Rack::Builder.new do
          use Rack::Deflater
          run Rack::Files.new(File.join(Settings::ROOT, "public/assets"),
                              { "cache-control" => "public, max-age=31536000, immutable" })
        end
      end

      # Guessing passwords: by address, beside Rodauth's lockout by account.
      def self.limit_sign_ins
        Rack::Attack.cache.store = Store::Counters.new
        Rack::Attack.throttle("sign-in", **SIGN_INS) do |request|
          Address.of(request) if request.post? && %w[/sign-in /sign-up /forgotten].include?(request.path)
        end
        Rack::Attack.throttled_responder = lambda do |_request|
          [429, { "content-type" => "text/plain" }, ["Too many tries from here. Wait a minute, then go on.\n"]]
        end
      end
    end
  end
end

# frozen_string_literal: true

require "rack"
require "rack/session"
require "rack/protection"

module Roost
  module Web
    # The whole program as one Rack application: what guards the door, then one small
    # app an audience. Seats, screens and answers carry no cookie.
    module Application
      POLICY = "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; font-src 'self'; " \
               "connect-src 'self'; media-src 'self' blob:; frame-src 'self' https:; worker-src 'self'; " \
               "form-action 'self'; base-uri 'none'; frame-ancestors 'none'"
      HEADERS = { "content-security-policy" => POLICY, "referrer-policy" => "no-referrer",
                  "x-content-type-options" => "nosniff", "cache-control" => "no-store", "x-frame-options" => "DENY",
                  "cross-origin-opener-policy" => "same-origin",
                  "permissions-policy" => "camera=(), microphone=(self), geolocation=()" }.freeze
      # For half a year, where people come by https.
      SECURE = { "strict-transport-security" => "max-age=15552000" }.freeze
      MEGABYTE = 1024 * 1024
      # The largest request each address takes; anything else takes the last.
      BODIES = { %r{\A/lessons/\d+/slides/\w+/clips/} => 201 * MEGABYTE,
                 %r{\A/lessons/(?:file|\d+/(?:imports|pictures))\z} => 52 * MEGABYTE,
                 // => 12 * MEGABYTE }.freeze

      # Where each app stands; of several the first that knows an address answers.
      PUBLIC = { "/media" => [Media], "/given" => [AnswerPictures], "/seat" => [Seat], "/sitting" => [Sitting],
                 "/screen" => [Screen], "/join" => [Join], "/pass" => [Pass], "/class" => [ClassPage], "/copy" => [Copies],
                 "/keypads" => [Keypads] }.freeze
      FOR_TEACHERS = { "/today" => [Today], "/lessons" => [Builder, Additions, Preview, Lessons], "/bank" => [Bank],
                       "/standards" => [Standards],
                       "/classes" => [Mastery, Groups, Grades, ClassTime, StudentRecords, ClassStudents,
                                      Classes],
                       "/assignments" => [Assignments],
                       "/sheets" => [Sheets], "/pictures" => [Library], "/desk" => [Desk],
                       "/results" => [SecondMarking, Marking, LessonPast, Results],
                       "/account" => [Account], "/school" => [School], "/" => [FrontDoor] }.freeze

      # Where what is sent is JSON or a picture, and no form.
      BARE = %r{\A/(?:answers|seat|here)/}

      # @return [Live::Engine] not started yet
      def self.engine
        Live::Engine.new(
          renderer: -> { Fragments.new },
          expire: ->(session_id) { Operations::CommandSession.new.by_clock(session_id, "expire") },
          rehearse: ->(session_id) { Operations::PracticeClass.new.carry_on(session_id) }
        )
      end

      # @param engine [Live::Engine]
      def self.build(engine)
        teachers = teachers(engine)
        settings = Roost.settings
        seats = KnownSeats.new(engine)
        Rack::Builder.new do
          Application.guard(self, settings)
          map("/assets") { run Application.assets }
          PUBLIC.each { |path, (app)| map(path) { run Application.packed(app) } }
          map("/stream/seat") { run Streams.new(engine, :seat) }
          map("/stream/screen") { run Streams.new(engine, :screen) }
          map("/answers") { run Answers.new(engine, seats) }
          map("/here") { run HeartbeatReply.new(engine, seats) }
          map("/outbox") { run Outbox } if settings.outbox?
          run teachers
        end.to_app
      end

      # What stands in front of all apps.
      # @param builder [Rack::Builder]
      def self.guard(builder, settings)
        builder.use Outflow
        builder.use Headers, settings.secure? ? HEADERS.merge(SECURE) : HEADERS
        builder.use ErrorBoundary
        builder.use BodyLimit, BODIES
        builder.use RequestFilter, proxies: settings.proxies, secure: settings.secure?, raw: BARE
        builder.use LookingBack, socket: settings.lookback_socket if settings.lookback?
      end

      def self.teachers(engine)
        settings = Roost.settings
        Rack::Builder.new do
          use Rack::Session::Cookie, key: "roost", secrets: settings.session_secret, same_site: :lax, httponly: true,
                                     secure: settings.secure?, expire_after: 14 * 24 * 3600
          use SameOrigin
          use Authentication
          map("/stream/desk") { run Streams.new(engine, :desk) }
          FOR_TEACHERS.each do |path, (*before, last)|
            map(path) do
              before.each { |app| use app }
              run last
            end
          end
        end.to_app
      end

      # A phone gets the pages of its seat packed; pictures are so already.
      def self.packed(app) = [Seat, Sitting].include?(app) ? Rack::Deflater.new(app) : app

      def self.assets = PackedFiles.new(File.join(Settings::ROOT, "public/assets"))
    end
  end
end

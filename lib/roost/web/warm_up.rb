# frozen_string_literal: true

require "securerandom"

module Roost
  module Web
    # A lesson that nobody sees, before the first request: a class may be waiting when the program starts, and the first of
    # everything (a template, a statement that PostgreSQL plans for a connection) takes many times as long as the next. Nothing
    # of it is kept.
    class WarmUp
      CONNECTIONS = 2 # of a process, that are used all the time; each costs some megabytes
      NOT_DONE = "Started cold"
      DEVICE = "0" * 40
      private_constant :NOT_DONE, :DEVICE

      # For all processes that are forked afterwards: templates of every kind of question.
      def self.shared
        attempt { new(Core::Kinds.all).call }
        ROUNDS.each { |name| Rendering.template(name) }
      end

      # Of a game round, at its beginning and its end.
      ROUNDS = %w[round/beginning round/ending round/own_end round/together round/notch desk/round desk/ending standings
                  seat/standing sitting/round].freeze
      private_constant :ROUNDS

      # What each process has for itself.
      def self.own
        Array.new(CONNECTIONS) { Thread.new { attempt { new(Core::Kinds.all.first(1)).call } } }.each(&:join)
      end

      # Whatever is wrong with it, the program starts.
      def self.attempt
        yield
      rescue StandardError => e
        Live::Fault.note(NOT_DONE, e)
      end
      private_class_method :attempt

      # @param kinds [Array<Class>] of prompt, that are asked
      def initialize(kinds)
        @kinds = kinds
      end

      def call
        Store::Database.connection.transaction(rollback: :always) do
          session = begun
          seat = come(session)
          page = Fragments.new
          cache = Live::SessionCache.new(session.id)
          @kinds.each_with_index do |_, place|
            command(session, "next")
            answer(session, seat, place)
            look(cache.moment, seat, page)
            command(session, "show", "what" => "results")
            look(cache.moment, seat, page)
          end
          command(session, "end")
        end
      end

      private

      def begun
        account = Store::Accounts.new.create(email: "#{SecureRandom.uuid}@localhost", name: "Nobody", password_hash: "")
        Store::SignIns.new.standing([SecureRandom.hex])
        form = { "opens_itself" => "1" }
        session = Operations::StartSession.new.call(account, Store::Lessons.new.create(account, lesson), form).value
        command(session, "begin")
        Store::Sessions.new.by_screen_key(session.screen_key)
        session
      end

      def lesson
        slides = @kinds.each_with_index.map do |kind, place|
          prompt = kind.new(id: "p#{place}", settings: { "time_limit" => 60 })
          Core::Slide.new(id: "s#{place}", heading: kind.label, prompt: prompt)
        end
        Core::Lesson.new(title: "", slides: [Core::Slide.new(id: "first", heading: "", text: "*One* moment"), *slides])
      end

      # @return [Hash] as Store::Seats#by_token
      def come(session)
        token = Operations::JoinSession.new.call(session.code, "Nobody", device: DEVICE).value
        seat = Store::Seats.new.by_token(token)
        Operations::VisitSeat.new.call(seat, session, device: DEVICE)
        Store::Seats.new.arrive(seat[:id], SecureRandom.hex(8), asked: true)
        seat
      end

      def command(session, name, arguments = {})
        Operations::CommandSession.new.call(session.account_id, session.id, name, arguments)
      end

      def answer(session, seat, place)
        save = { "slide" => "s#{place}", "fields" => { "options" => ["o1"], "text" => "a" }, "final" => false,
                 "save_no" => 1, "save_id" => SecureRandom.uuid }
        Operations::SaveAnswer.new.call(seat, Store::Sessions.new.lesson(session.id), save)
      end

      def look(moment, seat, page)
        views = Core::Session::Views
        page.seat(views.seats(moment, [seat[:id]]).keys.first, moment.now)
        page.screen(views.screen(moment), moment.now)
        page.desk(views.desk(moment), moment.now)
      end
    end
  end
end

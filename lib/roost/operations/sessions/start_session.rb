# frozen_string_literal: true

require "securerandom"

module Roost
  module Operations
    # Starts a session of a lesson: freezes a copy, so that later edits never touch it.
    class StartSession
      TITLE_LIMIT = 120
      CLASS_LIMIT = 60

      NO_CLASS = "That class isn't here any more. Choose another."
      NO_LIST = "Choose a class, so that there is a list to pick from."
      NO_GROUPS = "Nobody in that class is in a group yet. Give its students groups first, or deal the teams."
      NOBODY = "Nobody is in that class yet. Add its students first, or let them type a name."

      ONCE = /\A\h{8}(?:-\h{4}){3}-\h{12}\z/

      # @param form [Hash] "title", "class_id" or "class_name", "once" (a UUID of the form: sent twice it starts one), and the
      #   options
      # @param state [Core::Session::State, nil] of a session that each goes through alone
      # @return [Core::Reading, nil] of a Store::Sessions::Row; nil without such a lesson
      def call(account_id, lesson_id, form, state: nil)
        row = Store::Lessons.new.look(account_id, lesson_id)
        return nil unless row
        if row.lesson.class_slides.empty?
          return Core::Reading.refused("This lesson has no slides for the class. Add one, then start.")
        end

        options = Core::Session::Options.read(form)
        read(form, "title", TITLE_LIMIT, "The title").and_then do |title|
          given_to(account_id, form, options).and_then do |about|
            teams(options, about[:class_id]).map do |teams|
              begin_session(teams, account_id: account_id, lesson_id: lesson_id, lesson: given(row.lesson, options),
                                   options: options, state: state, once: StartSession.once(form),
                                   title: title.empty? ? row.lesson.title : title,
                                   last_time: LastTime.new.call(account_id, lesson_id), **about)
            end
          end
        end
      end

      # @return [String, nil] by which a form is known when it is sent again
      def self.once(form) = form["once"].to_s[ONCE]

      private

      # The lesson as this session gets it.
      def given(lesson, options)
        lesson = lesson.settled
        lesson = lesson.questions_mixed(Random.new(SecureRandom.random_number(2**32))) if options.questions_mixed
        options.parts_mixed ? lesson.parts_mixed : lesson
      end

      def begin_session(teams, **about)
        sessions = Store::Sessions.new
        sessions.transaction do
          sessions.asked_once(about[:account_id], about[:once]) ||
            sessions.create(**about) { |id| fill(id, teams, about[:options]) }
        end
      end

      def fill(session_id, teams, options)
        return BoardTeams.fill(session_id, teams.map(&:first)) if options.teams == "board"

        Store::Teams.new.create(session_id, teams)
      end

      # @return [Core::Reading] of Array of names and marks
      def teams(options, class_id)
        named = case options.teams
                when "" then []
                when "groups"
                  Core::Session::Team.of_groups(class_id ? Store::Students.new.of_class(class_id).map(&:group) : [])
                else Core::Session::Team.named(options.team_count.to_i)
                end
        named.empty? && options.teams == "groups" ? Core::Reading.refused(NO_GROUPS) : Core::Reading.ok(named)
      end

      # @return [Core::Reading] of the class it is given to: :class_id and :class_name
      def given_to(account_id, form, options)
        if form["class_id"].to_s.empty?
          return Core::Reading.refused(NO_LIST) if of_class?(options)

          return read(form, "class_name", CLASS_LIMIT, "The class").map { |name| { class_name: name } }
        end

        found = Store::Classes.new.find(account_id, form["class_id"].to_s[/\A\d{1,18}\z/].to_i)
        return Core::Reading.refused(NO_CLASS) unless found
        return Core::Reading.refused(NOBODY) if found.students.zero? && of_class?(options)

        Core::Reading.ok({ class_id: found.id, class_name: found.name })
      end

      def of_class?(options) = Core::Session::Options::OF_CLASS.include?(options.entry)

      def read(form, field, limit, what) = Core::Text.read(form[field], limit: limit, what: what, lines: false)
    end
  end
end

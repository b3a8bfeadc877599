# frozen_string_literal: true

module Roost
  module Store
    # Puts together what happened in a session, as the core looks back on it. What was tallied is kept
    # for the next that asks: a page load works out only what is new.
    class Records < Repository
      @tallies = Core::LruCache.new(50)

      # @return [Hash] slide id to what was tallied last; written to by the records that use it
      def self.tallies(session_id) = @tallies.fetch(session_id) { {} }

      # @param row [Sessions::Row]
      # @param memory [Core::Session::Memory, nil] of the record of a moment ago
      # @param parts [Hash] of Record::About, People and Given, what the caller has at hand already
      # @return [Core::Session::Record]
      def of(row, memory: nil, **parts)
        Core::Session::Record.new(about: about(row, **parts.slice(:counts, :live)), people: people(row, parts),
                                  facts: row.state.facts, given: given(row, parts), memory: memory || memory(row))
      end

      # With the commands that were given, for who looks at how the lesson went.
      # @return [Core::Session::Record]
      def whole(row) = of(row, commands: Sessions.new(database).commands(row.id))

      # What happened to one seat, without the others.
      # @return [Core::Session::Record]
      def at_seat(row, seat_id) = of(row, **parts_at_seat(row, seat_id))

      # As students may know it: without the marks that their teacher has not let them see.
      # @param seat_id [Integer, nil] only what happened to one seat
      # @return [Core::Session::Record]
      def for_students(row, seat_id: nil, **parts)
        own = seat_id ? parts_at_seat(row, seat_id) : {}
        of(row, **own, **parts, hand: HandMarks.new(database).of(row.id, seat_id: seat_id, released: true))
      end

      # What all gave on one slide, without the rest of the session; where each is alone, in their last attempt.
      # @return [Core::Session::Record]
      def at_slide(row, slide_id)
        of(row, roll: [], shown: {}, sat: {}, counts: ("last" if row.self_paced),
                answers: Answers.new(database).by_question(row.id, slide_id: slide_id))
      end

      # @return [Core::Session::Memory] which knows what was tallied of a session in this process
      def memory(row) = Core::Session::Memory.new(tallies: Records.tallies(row.id))

      # The class a session was given to, as its teacher may know it: as it was when she left it, where she has.
      # @param row [Sessions::Row]
      # @return [Array<Core::Student>]
      def class_of(row)
        return [] unless row.class_id

        row.left ? Sessions.new(database).roll_left(row.id) : Students.new(database).of_class(row.class_id)
      end

      # @return [Hash] of #of
      def parts_at_seat(row, seat_id)
        { roll: [], seats: Seats.new(database).of(row.id, seat_id: seat_id),
          answers: Answers.new(database).by_question(row.id, seat_id: seat_id),
          shown: Deliveries.new(database).of(row.id, seat_id: seat_id), sat: sat(row, seat_id), hand: {} }
      end

      private

      # What the session's own row says.
      def about(row, live: false, counts: (assignment(row).rules["counts"] if row.self_paced))
        Core::Session::Record::About.new(id: row.id, title: row.title, options: row.options, counts: counts, live: live,
                                         lesson: Sessions.new(database).lesson_of(row), begun_at: row.state.begun_at).freeze
      end

      def people(row, parts)
        teams = parts.fetch(:teams) { row.options.teams.empty? ? [] : Teams.new(database).of(row.id) }
        Core::Session::Record::People.new(seats: parts.fetch(:seats) { Seats.new(database).of(row.id) }, teams: teams,
                                          roll: parts.fetch(:roll) { roll(row) }).freeze
      end

      def given(row, parts)
        Core::Session::Record::Given.new(answers: parts.fetch(:answers) { Answers.new(database).by_question(row.id) },
                                         shown: parts.fetch(:shown) { Deliveries.new(database).by_question(row.id) },
                                         sat: parts.fetch(:sat) { sat(row) }, commands: parts.fetch(:commands, []),
                                         teams_at: parts.fetch(:teams_at) { teams_at(row) },
                                         hand: parts.fetch(:hand) { HandMarks.new(database).of(row.id) }).freeze
      end

      def teams_at(row) = row.options.teams.empty? ? {} : Teams.new(database).at_openings(row.id)

      # @return [Hash{Array(Integer, Integer)=>Array<String>}] seat and attempt to the slides of sittings that are over
      def sat(row, seat_id = nil)
        return {} unless row.self_paced || Sessions.new(database).lesson_of(row).quizzes.any?

        over = Sittings.new(database).over(row.id, all: !row.ended_at.nil?, seat_id: seat_id)
        over.group_by { |each| each.values_at(:seat_id, :attempt) }
            .transform_values { |all| all.flat_map { |each| each[:slides].to_a } }
      end

      # Those of the class that may be missed.
      def roll(row)
        return [] unless row.class_id && row.options.attendance?

        of_class = class_of(row)
        row.self_paced ? of_class.select { |student| assignment(row).for?(student.id) } : of_class
      end

      def assignment(row) = Assignments.new(database).find(row.id)
    end
  end
end

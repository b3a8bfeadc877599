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
      # @param before [Core::Session::Record, nil] of a moment ago
      # @param parts [Hash] :seats, :answers, :shown, :roll and :teams, where the caller has them at hand already
      # @return [Core::Session::Record]
      def of(row, before: nil, **parts)
        parts = { **(row.alone && !parts.key?(:answers) ? counted(row) : { shares: {} }), **parts }
        Core::Session::Record.new(
          **frozen(row), before: before, tallies: Records.tallies(row.id), shares: parts[:shares],
                         sat: parts.fetch(:sat) { sat(row) }, roll: parts.fetch(:roll) { roll(row) },
                         teams: parts.fetch(:teams) { row.options.teams.empty? ? [] : Teams.new(database).of(row.id) },
                         seats: parts.fetch(:seats) { Seats.new(database).of(row.id) },
                         answers: parts.fetch(:answers) { Answers.new(database).by_question(row.id) },
                         shown: parts.fetch(:shown) { Deliveries.new(database).by_question(row.id) }
        )
      end

      # What happened to one seat, without the others.
      # @return [Core::Session::Record]
      def at_seat(row, seat_id) = of(row, **parts_at_seat(row, seat_id))

      # What all gave on one slide, without the rest of the session; where each is alone, in their last attempt.
      # @return [Core::Session::Record]
      def at_slide(row, slide_id)
        attempt = row.state.openings[slide_id]&.last&.attempt || 1
        of(row, roll: [], shown: {}, sat: {}, answers: { [slide_id, attempt] => Answers.new(database).latest(row.id, slide_id) })
      end

      # The class a session was given to, as its teacher may know it: as it was when she left it, where she has.
      # @param row [Sessions::Row]
      # @return [Array<Core::Student>]
      def class_of(row)
        return [] unless row.class_id

        row.left ? Sessions.new(database).roll_left(row.id) : Students.new(database).of_class(row.class_id)
      end

      # @return [Hash] of #of
      def parts_at_seat(row, seat_id)
        answers = row.alone ? counted(row, seat_id) : { **given(row, seat_id), sat: sat(row, seat_id) }
        { roll: [], seats: Seats.new(database).of(row.id, seat_id: seat_id), **answers }
      end

      private

      # What the session's own row says.
      def frozen(row)
        state = row.state
        { id: row.id, title: row.title, options: row.options, lesson: Sessions.new(database).lesson_of(row),
          openings: state.openings, set_aside: state.set_aside, curated: state.curated, begun_at: state.begun_at }
      end

      # @param seat_id [Integer, nil] nil for all
      def given(row, seat_id)
        { answers: Answers.new(database).by_question(row.id, seat_id: seat_id),
          shown: Deliveries.new(database).of(row.id, seat_id: seat_id) }
      end

      # Of several attempts those that count.
      def counted(row, seat_id = nil)
        over = over(row, seat_id).to_h { |each| [each.values_at(:seat_id, :attempt), each[:slides].to_a] }
        counted = Core::Session::CountedAttempts.new(
          *given(row, seat_id).values, sat: over, set_aside: row.state.set_aside, counts: assignment(row).rules["counts"],
                                       lesson: Sessions.new(database).lesson_of(row), rules: row.options.rules
        )
        %i[answers shown shares sat].to_h { |part| [part, counted.public_send(part)] }
      end

      # @return [Hash{Integer=>Array<String>}] seat id to the slides of its quizzes that are over
      def sat(row, seat_id = nil)
        return {} unless Sessions.new(database).lesson_of(row).quizzes.any?

        over(row, seat_id).group_by { |each| each[:seat_id] }.transform_values do |all|
          all.flat_map do |each|
            each[:slides].to_a
          end
        end
      end

      def over(row, seat_id) = Sittings.new(database).over(row.id, all: !row.ended_at.nil?, seat_id: seat_id)

      # Those of the class that may be missed.
      def roll(row)
        return [] unless row.class_id && row.options.attendance?

        of_class = class_of(row)
        row.alone ? of_class.select { |student| assignment(row).for?(student.id) } : of_class
      end

      def assignment(row) = Assignments.new(database).find(row.id)
    end
  end
end

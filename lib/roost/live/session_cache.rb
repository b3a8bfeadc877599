# frozen_string_literal: true

require "delegate"
require "set"

module Roost
  module Live
    # What this process remembers of one session between notices: the answers so far and what was sent
    # when, of which only what is new is read; and where it stands and who is there, as long as nothing
    # but answers came. Used by one thread at a time.
    class SessionCache
      # A Hash that is read once somebody asks for something in it.
      class Later < Delegator
        def initialize(&block)
          super(nil)
          @block = block
        end

        def __getobj__ = @read ||= @block.call # rubocop:disable Naming/MemoizedInstanceVariableName

        def __setobj__(_none) = @read = nil
      end
      private_constant :Later

      # A row may become visible after one that is younger; rows this young, in seconds, are
      # read again. Saves are single statements and take milliseconds.
      OVERLAP = 2.0
      # Notices (as in Bus) after which it stands where it stood, and after which the same people are there.
      STANDING = Set[:answers].freeze
      SEATED = Set[:answers, :state].freeze

      # @return [Store::Sessions::Row, nil] as of the last time, with the present time
      attr_reader :row

      def initialize(session_id)
        @session_id = session_id
        @answers = {}
        @copied = Set.new
        @settled = 0
        @recent = []
        @shown = {}
        @shown_until = 0.0
        @sittings = {}
        @played_in = {}
      end

      # @param scopes [Set<Symbol>] what can have changed since the last one; whatever else there is, all of it
      # @param steps [Array<Core::Session::StepOn, nil>] what commands changed since; nil for each of which that wasn't told
      # @return [Core::Session::Moment, nil] nil when the session is gone
      def moment(scopes = Set[:sweep], steps: [])
        Store::Database.hold { present(scopes, steps) }
      ensure
        @copied.clear # what was handed on is not written to any more
      end

      private

      def present(scopes, steps)
        standing = !@last.nil? && scopes <= STANDING
        told = scopes <= SEATED && stepped_on?(steps) unless standing
        standing || told ? let_time_pass : read_row
        return nil if row.nil? || row.deleted

        read_answers
        # What was sent to whom is looked at only once a question is over, or by those who come; not by most who are told.
        @deliveries = Later.new { read_deliveries } unless standing
        @teams_at = Later.new { read_teams } unless standing
        @memory ||= Store::Records.new.memory(row)
        # Nobody here is looked back on, so that none of a student's attempts is the one that counts.
        @last = Store::Moments.new.of(row, **same(scopes), answers: @answers.dup, shown: @deliveries, teams_at: @teams_at,
                                                           sittings: sittings, memory: @memory, counts: nil)
      end

      attr_reader :session_id

      def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

      # What is as it was. Where nobody came or went, what was worked out of other answers is, too.
      def same(scopes)
        return {} unless @last && scopes <= SEATED

        { seats: @last.seats, roll: @last.roll, teams: @last.teams, stopped: @last.stopped }
      end

      def read_row
        @row = Store::Sessions.new.find(session_id)
        @read_at = clock
      end

      # Goes along with what commands changed, where all of that was told, one after the other.
      # @return [Boolean] whether it was
      def stepped_on?(steps)
        return false if @last.nil? || steps.empty? || steps.any?(&:nil?) || row.ended_at

        row = @row
        steps.sort_by(&:version).each do |step|
          next if step.version <= row.version
          return false if step.version > row.version + 1 || step.lesson != row.lesson_version

          row = Store::Sessions::Row.new(**row.to_h, version: step.version, state: step.from(row.state))
        end
        @row = row.freeze
        true
      end

      def let_time_pass
        passed = clock - @read_at
        @read_at += passed
        @row = row.dup.tap { |later| later.now += passed }.freeze
      end

      def read_answers
        Store::Answers.new.of(session_id, beyond: @settled).each do |seq, answer|
          keep(answer)
          @highest = seq
        end
        @recent << [row.now, @highest || 0]
        @settled = @recent.shift[1] while @recent.any? && @recent.first[0] < row.now - OVERLAP
      end

      # Of the quiz the class is at, those in which something is new.
      # @return [Hash{Integer=>Core::Session::Sitting}] by seat
      def sittings
        return @sittings = {} unless Store::Moments.new.in_quiz?(row)

        unless @quiz == row.state.slide_id
          @sittings = {}
          @sat_until = 0.0
          @quiz = row.state.slide_id
        end
        new = Store::Sittings.new.of(row.id, @quiz, since: @sat_until).to_h { |kept| [kept.seat_id, kept.sitting] }
        @sat_until = row.now - OVERLAP
        @sittings = @sittings.merge(new)
      end

      # Who was in which team when a question opened is never another.
      def read_teams
        return @played_in unless row.options.teams?

        @played_in = @played_in.merge(Store::Teams.new.at_openings(session_id, but: @played_in.keys))
      end

      # What was handed on stays as it was.
      def read_deliveries
        at = row.now
        new = Store::Deliveries.new.of(session_id, since: @shown_until)
        @shown_until = at - OVERLAP
        @shown = @shown.merge(new) { |_, before, more| before.merge(more) }
      end

      # An answer that was read again is the same as before; what was worked out of it stands.
      def keep(answer)
        question = [answer.slide_id, answer.attempt]
        here = @answers.fetch(question, {})
        return if here[answer.seat_id] == answer

        @answers[question] = here.dup if @copied.add?(question)
        @answers[question][answer.seat_id] = answer
      end
    end
  end
end

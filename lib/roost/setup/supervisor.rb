# frozen_string_literal: true

module Roost
  module Setup
    # Keeps the parts of the running program running: programs of its own, and the database. What has
    # ended is started again, after a pause that grows with each time in a row; it says so, and when
    # one part can't be kept up for half an hour it stops the others and gives up.
    class Supervisor
      PAUSES = [1, 2, 4, 8, 15, 30].freeze # seconds; the last again and again
      GIVE_UP = 1800 # seconds in which it never ran for STEADY
      STEADY = 60
      LOOK = 0.2

      # A program that is run.
      class Program
        # Threads that each keep memory of their own to give out keep a tenth more of it than two lots do.
        ENVIRONMENT = { "MALLOC_ARENA_MAX" => "2" }.freeze

        # @param command [Array<String>] as for spawn
        # @param folder [String] that it runs in
        def initialize(*command, folder:)
          @command = command
          @folder = folder
        end

        def start = @pid = spawn(ENVIRONMENT, *@command, chdir: @folder)

        def running?
          return false unless @pid

          @pid = nil if Process.wait(@pid, Process::WNOHANG)
          !@pid.nil?
        end

        # Asks it to end, and waits until it has.
        def stop
          return unless running?

          Process.kill(:TERM, @pid)
          Process.wait(@pid)
        rescue SystemCallError
          nil
        ensure
          @pid = nil
        end
      end

      # failing_since:: when it ended the first time in a row; due:: when it is to be started again
      Part = Struct.new(:name, :service, :started, :failures, :failing_since, :due, keyword_init: true)

      # @param services [Hash{String=>#start, #running?, #stop}] in the order in which they are started
      # @param say [#call] takes a sentence for whoever looks after the program
      def initialize(services, say:, clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
        @parts = services.map { |name, service| Part.new(name: name, service: service, failures: 0) }
        @say = say
        @clock = clock
      end

      # Starts all parts and keeps them up until #stop is called or one is given up.
      # @return [String, nil] which one; nil when it was asked to end
      def run
        @parts.each { |part| start(part) }
        until @stopping
          sleep LOOK
          @parts.each { |part| look(part) unless @stopping }
          given_up = @parts.find { |part| given_up?(part) } and break
        end
        @say.call("Giving up: #{given_up.name} can't be kept running.") if given_up
        @parts.reverse_each { |part| part.service.stop }
        given_up&.name
      end

      # May be called from a signal handler.
      def stop = @stopping = true

      private

      def now = @clock.call

      def start(part)
        part.started = now
        part.due = nil
        part.service.start
      rescue StandardError => e
        @say.call("#{part.name} does not start: #{e.message.lines.first.to_s.strip}")
        ended(part)
      end

      def look(part)
        return part.due && now >= part.due && start(part) unless part.started

        if !part.service.running? then ended(part)
        elsif now - part.started >= STEADY then part.failures = 0
        end
      end

      def ended(part)
        part.failing_since = now if part.failures.zero?
        part.failures += 1
        pause = PAUSES.fetch(part.failures - 1, PAUSES.last)
        @say.call("#{part.name} has ended. It is started again in #{pause} s.")
        part.started = nil
        part.due = now + pause
      end

      def given_up?(part) = part.failures > PAUSES.length && part.started.nil? && now - part.failing_since > GIVE_UP
    end
  end
end

# frozen_string_literal: true

module Roost
  module Setup
    # Keeps the parts of the running program running: programs of its own, and the database. What has
    # ended is started again, after a pause that grows with each time in a row, for as long as it takes, and
    # it says so: while one part is away, the others go on.
    class Supervisor
      PAUSES = [1, 2, 4, 8, 15, 30].freeze # seconds; the last again and again
      STEADY = 60
      LOOK = 0.2

      # A program that is run.
      class Program
        # Threads that each keep memory of their own to give out keep a tenth more of it than two lots do.
        ENVIRONMENT = { "MALLOC_ARENA_MAX" => "2" }.freeze

        # For what may take memory: it is collected less often.
        ROOMY = { "RUBY_GC_HEAP_FREE_SLOTS" => "400000", "RUBY_GC_MALLOC_LIMIT" => "67108864",
                  "RUBY_GC_MALLOC_LIMIT_MAX" => "134217728", "RUBY_GC_OLDMALLOC_LIMIT" => "134217728",
                  "RUBY_GC_OLDMALLOC_LIMIT_MAX" => "268435456" }.freeze

        # Asked to end when the program that runs it is gone, however that ended: so nothing is left without supervision, and
        # the port is free.
        WITH_PARENT = %w[setpriv --pdeathsig TERM].freeze

        # In turns of LOOK: when it is asked to end once more, and from when on it is ended.
        ASK = 10
        PATIENCE = 100

        # @return [Integer, nil] its process id, while it runs
        attr_reader :pid

        # @param command [Array<String>] as for spawn
        # @param folder [String] that it runs in
        # @param environment [Hash{String=>String}] besides what this program has
        # @param output [Hash] where its output goes, as for spawn; to where this program's goes, if nothing is said
        def initialize(*command, folder:, environment: {}, output: {})
          @command = command
          @folder = folder
          @environment = ENVIRONMENT.merge(environment)
          @output = output
        end

        def start = @pid = spawn(@environment, *WITH_PARENT, *@command, chdir: @folder, **@output)

        def running?
          return false unless @pid

          @pid = nil if Process.wait(@pid, Process::WNOHANG)
          !@pid.nil?
        end

        # Asks it to end, again and again, since a web server that has only begun lets that pass, and ends it when it
        # takes too long.
        def stop
          asked = 0
          while running?
            Process.kill(asked < PATIENCE ? :TERM : :KILL, @pid) if (asked % ASK).zero?
            asked += 1
            sleep LOOK
          end
        rescue SystemCallError
          @pid = nil
        end
      end

      # failures:: in a row; due:: when it is to be started again
      Part = Struct.new(:name, :service, :started, :failures, :due, keyword_init: true)

      # @param services [Hash{String=>#start, #running?, #stop}] in the order in which they are started
      # @param say [#call] takes a sentence for whoever looks after the program
      def initialize(services, say:, clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
        @parts = services.map { |name, service| Part.new(name: name, service: service, failures: 0) }
        @say = say
        @clock = clock
      end

      # Starts all parts and keeps them up until #stop is called.
      def run
        @parts.each { |part| start(part) }
        until @stopping
          sleep LOOK
          @parts.each { |part| look(part) unless @stopping }
        end
        @parts.reverse_each { |part| part.service.stop }
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
        part.failures += 1
        pause = PAUSES.fetch(part.failures - 1, PAUSES.last)
        @say.call("#{part.name} has ended. It is started again in #{pause} s.")
        part.started = nil
        part.due = now + pause
      end
    end
  end
end

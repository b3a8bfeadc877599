# frozen_string_literal: true

require "nio"

module Roost
  module Web
    class Outflow
      # Writes to many sockets from one thread. Each has a time by which it has to be done, by its size; when there are too many,
      # or too much waits in memory, those go that have taken nothing for longest, of the address that has most.
      class Pump
        MOST = 1_000
        MOST_HELD = 96 * 1024 * 1024 # bytes of answers that are in memory
        IDLE = 30.0 # seconds without a byte taken
        # An answer may take so many seconds, and another for so many bytes.
        GRACE = 30.0
        SLOWEST = 2_048
        # How long the end of a connection is waited for that has got everything.
        LINGER = 2.0

        # One answer on its way. source:: Held or FromFile; rest:: of the part that is begun; moved:: when something was taken;
        # by:: when it has to be done; said:: whether all of it was
        Pour = Struct.new(:socket, :source, :rest, :address, :moved, :by, :monitor, :said, keyword_init: true) do
          # Bytes of it in memory.
          def held = said ? 0 : source.held
        end

        # @param clock [#call] seconds
        def initialize(clock: -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) })
          @clock = clock
          @lock = Mutex.new
          @new = Queue.new
          @pours = {}.compare_by_identity
        end

        # @param source [Held, FromFile]
        # @param address [String] who asked
        def pour(socket, source, address:)
          now = @clock.call
          @new << Pour.new(socket: socket, source: source, rest: "", address: address, moved: now,
                           by: now + GRACE + (source.size / SLOWEST), said: false)
          selector.wakeup
        end

        # @return [Integer] answers that are on their way
        def length = @new.length + @pours.length

        def none? = length.zero?

        private

        # Of this process: a web server forks.
        def selector
          @lock.synchronize do
            next @selector if @pid == Process.pid

            @pid = Process.pid
            @pours.clear
            @selector = NIO::Selector.new
            Thread.new { loop { turn } }.name = "roost-outflow"
            @selector
          end
        end

        def turn
          @selector.select(@pours.empty? ? nil : 1) { |monitor| serve(monitor.value) }
          begin_with(@new.pop) until @new.empty?
          now = @clock.call
          @pours.each_key.select { |pour| over?(pour, now) }.each { |pour| finish(pour) }
          make_room
        rescue IOError
          nil # a socket was closed under the selector; the next turn goes on without it
        rescue StandardError => e
          Live::Fault.note("outflow", e) # and goes on: nothing large would go out any more
        end

        def over?(pour, now) = now > pour.by || now > pour.moved + (pour.said ? LINGER : IDLE)

        def begin_with(pour)
          @pours[pour] = true
          pour.monitor = @selector.register(pour.socket, :w)
          pour.monitor.value = pour
          serve(pour)
        rescue IOError, SystemCallError
          finish(pour)
        end

        def serve(pour)
          pour.said ? listen(pour) : write(pour)
        rescue IOError, SystemCallError
          finish(pour)
        end

        # As much as it takes, but no more than some parts at a time: others wait.
        def write(pour)
          8.times do
            pour.rest = pour.source.part || (return say_end(pour)) if pour.rest.empty?
            written = pour.socket.write_nonblock(pour.rest, exception: false)
            return if written == :wait_writable

            pour.moved = @clock.call
            pour.rest = pour.rest.byteslice(written..)
          end
        end

        # Closed for good only when the other side has closed, too: what is on its way would be lost.
        def say_end(pour)
          pour.said = true
          pour.source.close
          pour.socket.close_write
          pour.monitor.interests = :r
        end

        def listen(pour)
          finish(pour) if pour.socket.read_nonblock(16_384, exception: false).nil?
        end

        def finish(pour)
          @pours.delete(pour)
          pour.source.close
          @selector.deregister(pour.socket) if pour.monitor
          pour.socket.close
        rescue IOError, SystemCallError
          nil # already gone
        end

        def make_room
          finish(slowest) while @pours.length > MOST || (@pours.length > 1 && @pours.each_key.sum(&:held) > MOST_HELD)
        end

        def slowest = @pours.keys.group_by(&:address).values.max_by(&:length).min_by(&:moved)
      end
    end
  end
end

# frozen_string_literal: true

require "nio"

module Roost
  module Live
    # The open streams of this process: owns their sockets. Writes never block: what a
    # device does not take at once waits in a bounded buffer, and a device that lets
    # that fill up is dropped without holding up the others. Public methods may be
    # called from any thread; sockets are watched by one.
    class Hub
      MOST_WAITING = 250_000 # bytes

      # One device's stream. `about` is whatever the owner wants to know it by, `group` what it is looked up by.
      class Stream
        attr_reader :io, :about, :group, :lock
        attr_accessor :waiting, :monitor, :closed, :sent

        def initialize(io, about, group)
          @io = io
          @about = about
          @group = group
          @lock = Mutex.new
          @waiting = +""
        end
      end

      # @param on_close [#call] called with the Stream, once, when it is gone
      def initialize(on_close:)
        @on_close = on_close
        @changes = Queue.new
        @groups = {}
        @lock = Mutex.new
      end

      def start
        @selector = NIO::Selector.new
        @running = true
        @thread = Thread.new { watch while @running }
        @thread.name = "roost-hub"
      end

      def stop
        @running = false
        @selector&.wakeup
        @thread&.join(2)
        streams.each { |stream| drop(stream) }
        @selector&.close
      end

      # @return [Stream]
      def add(io, about, group: nil)
        stream = Stream.new(io, about, group)
        @lock.synchronize { (@groups[group] ||= {}.compare_by_identity)[stream] = true }
        tell(:register, stream)
        stream
      end

      def streams = @lock.synchronize { @groups.values.flat_map(&:keys) }

      def streams_of(group) = @lock.synchronize { @groups.fetch(group, {}).keys }

      # Those that have a stream.
      def groups = @lock.synchronize { @groups.keys }

      def write(stream, bytes)
        stream.lock.synchronize do
          next if stream.closed
          next wait(stream, bytes) unless stream.waiting.empty?

          written = stream.io.write_nonblock(bytes, exception: false)
          next wait(stream, bytes) if written == :wait_writable
          next if written == bytes.bytesize

          wait(stream, bytes.byteslice(written..))
        end
      rescue IOError, SystemCallError
        drop(stream)
      end

      def drop(stream)
        stream.lock.synchronize do
          return if stream.closed

          stream.closed = true
        end
        forget(stream)
        tell(:close, stream)
        on_close.call(stream)
      end

      private

      attr_reader :on_close

      def wait(stream, bytes)
        if stream.waiting.bytesize + bytes.bytesize > MOST_WAITING
          Thread.new { drop(stream) } # not here: the stream's lock is held
        else
          stream.waiting << bytes
          tell(:writable, stream)
        end
      end

      def forget(stream)
        @lock.synchronize do
          @groups[stream.group].delete(stream)
          @groups.delete(stream.group) if @groups[stream.group].empty?
        end
      end

      def tell(change, stream)
        @changes << [change, stream]
        @selector.wakeup if @running
      end

      def watch
        @selector.select(1) { |monitor| serve(monitor.value, monitor) }
        carry_out(*@changes.pop) until @changes.empty?
      rescue IOError
        nil # a socket was closed under the selector; the next turn goes on without it
      end

      def carry_out(change, stream)
        case change
        when :register then register(stream)
        when :writable then stream.monitor&.interests = :rw unless stream.closed
        when :close
          @selector.deregister(stream.io) if stream.monitor
          stream.io.close unless stream.io.closed?
        end
      rescue IOError, SystemCallError
        nil # already gone
      end

      def register(stream)
        return if stream.closed

        stream.monitor = @selector.register(stream.io, stream.waiting.empty? ? :r : :rw)
        stream.monitor.value = stream
      end

      def serve(stream, monitor)
        drain(stream, monitor) if monitor.writable?
        drop(stream) if monitor.readable? && stream.io.read_nonblock(4096, exception: false).nil?
      rescue IOError, SystemCallError
        drop(stream)
      end

      def drain(stream, monitor)
        stream.lock.synchronize do
          next if stream.closed

          written = stream.io.write_nonblock(stream.waiting, exception: false) unless stream.waiting.empty?
          stream.waiting = stream.waiting.byteslice(written..) if written.is_a?(Integer)
          monitor.interests = :r if stream.waiting.empty?
        end
      end
    end
  end
end

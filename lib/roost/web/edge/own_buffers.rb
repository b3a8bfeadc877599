# frozen_string_literal: true

module Roost
  module Web
    # Puma 8.0.2 empties the buffer of a connection once more after it has handed the connection on (Puma::Server
    # #process_client, ensure). The thread that answers its next request may have begun by then, and loses the header it
    # has just put there: seen in bench/joining.rb, where fifteen hundred devices come at once. So each thread has a buffer
    # of its own, which is empty between two answers anyway. Put before Puma::Client (config/puma.rb).
    module OwnBuffers
      # @return [Puma::IOBuffer]
      def io_buffer
        thread = Thread.current
        thread.thread_variable_get(:roost_io_buffer) ||
          Puma::IOBuffer.new.tap { |buffer| thread.thread_variable_set(:roost_io_buffer, buffer) }
      end
    end
  end
end

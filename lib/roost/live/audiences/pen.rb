# frozen_string_literal: true

module Roost
  module Live
    module Audiences
      # Everybody, as far as the teacher's pen goes: what it draws goes to every device as it is. No view is made and nothing is
      # read.
      class Pen < Audience
        def surface = :pen

        def concerned?(_streams, _scopes) = false

        def relay(session_id, text)
          event = "event: ink\ndata: #{text}\n\n"
          hub.streams_of(session_id).each { |stream| hub.write(stream, event) }
        end
      end
    end
  end
end

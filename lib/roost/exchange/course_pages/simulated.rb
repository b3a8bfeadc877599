# frozen_string_literal: true

require "json"
require "net/http"

module Roost
  module Exchange
    module CoursePages
      # The page that ships with the program (bin/coursepage).
      class Simulated
        PATIENCE = 3 # seconds
        AWAY = [SystemCallError, IOError, Timeout::Error, SocketError, Net::ProtocolError].freeze
        MISSING = "The course page isn't answering. Start it with bin/coursepage, or copy the link."

        # @param address [String] such as http://127.0.0.1:4570
        def initialize(address)
          @address = URI(address)
        end

        # @param post [Post]
        # @return [Core::Reading] of the address of the page
        def post(post)
          reply = Net::HTTP.start(@address.host, @address.port, open_timeout: PATIENCE, read_timeout: PATIENCE) do |http|
            http.post("/posts", JSON.generate(post.to_h), "content-type" => "application/json")
          end
          reply.is_a?(Net::HTTPCreated) ? Core::Reading.ok(@address.to_s) : Core::Reading.refused(MISSING)
        rescue *AWAY
          Core::Reading.refused(MISSING)
        end
      end
    end
  end
end

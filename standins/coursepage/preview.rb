# frozen_string_literal: true

require "cgi"
require "net/http"

module CoursePage
  # What a link alone looks like when it is pasted: title, words and picture as its page says them (Open Graph).
  class Preview
    MOST = 200_000 # bytes that are looked at
    PATIENCE = 3 # seconds
    AWAY = [SystemCallError, IOError, Timeout::Error, SocketError, URI::Error, Net::ProtocolError, ArgumentError].freeze
    TAG = /<meta property="og:(title|description|image)" content="([^"]*)"/

    # @param origin [String] the only address that is asked, such as http://127.0.0.1:4567
    def initialize(origin)
      @origin = URI(origin)
    end

    # @return [Hash{String=>String}] of "title", "description" and "image", as far as the page says them
    def of(link)
      address = URI(link)
      return {} unless [address.scheme, address.host, address.port] == [@origin.scheme, @origin.host, @origin.port]

      head(address).scan(TAG).to_h.transform_values { |text| CGI.unescapeHTML(text) }
    rescue *AWAY
      {}
    end

    private

    def head(address)
      text = +""
      Net::HTTP.start(address.host, address.port, open_timeout: PATIENCE, read_timeout: PATIENCE) do |http|
        http.request_get(address.request_uri) do |reply|
          reply.read_body { |part| break if (text << part).bytesize > MOST }
        end
      end
      text.force_encoding("UTF-8").scrub("")
    end
  end
end

# frozen_string_literal: true

require "json"
require "net/http"
require_relative "driver"

module Keypads
  # Stands between a driver and Amber Roost: knocks, asks what is on, and passes on what was pressed. What can't be passed
  # on because the line is away is passed on later, in its order (docs/KEYPADS.md).
  class Receiver
    EVERY = 0.5 # seconds between two looks
    AWAY = [SystemCallError, IOError, Timeout::Error, SocketError, JSON::ParserError].freeze

    # @param url [String] of Amber Roost
    # @param driver [Driver]
    # @param code [String] of the session
    def initialize(url, driver, code)
      @url = URI(url)
      @driver = driver
      @code = code
      @waiting = []
    end

    # @return [String, nil] why it can't come in; nil once it has knocked
    def knock
      reply = post("/keypads", code: @code, name: @driver.name)
      @token = reply["token"]
      reply["message"]
    end

    # @yieldparam status [Hash] each time it has looked
    # @yieldreturn [Boolean] whether to go on
    def run
      loop do
        status = look
        break if status && (status["state"] == "refused" || status["phase"] == "ended")
        break unless yield(status || {})

        sleep EVERY
      end
    end

    private

    def look
      status = get("/keypads/#{@token}")
      @waiting.concat(@driver.events(status)) if status["state"] == "in"
      pass_on
      status
    rescue *AWAY
      nil
    end

    def pass_on
      while (event = @waiting.first)
        reply = post("/keypads/#{@token}/events", keypad: event.number, event.what => event.value, question: event.question.to_s)
        @waiting.shift
        @driver.told(event, reply["message"])
      end
    end

    def get(path) = JSON.parse(Net::HTTP.get(@url + path))

    def post(path, **form) = JSON.parse(Net::HTTP.post_form(@url + path, form.transform_keys(&:to_s)).body)
  end
end

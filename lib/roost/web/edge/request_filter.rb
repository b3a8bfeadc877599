# frozen_string_literal: true

require "rack"

module Roost
  module Web
    # Stands in front of all apps: what comes through is well-formed, and says only what may be
    # believed. Addresses and parameters are text without NUL, of bounded length, number and depth;
    # parameters are single texts but for those that are known to be more. Headers in which a proxy
    # would say who asks are believed as far as the settings say there are proxies, and then are gone.
    class RequestFilter
      MOST_PATH = 2_000 # bytes
      MOST_QUERY = 8_000
      MOST_PARAMETERS = 4_000
      MOST_DEPTH = 5
      # Parameters that may be lists or hold others.
      STRUCTURED = %w[prompt ids questions pictures picture_files picture_alts held held_names
                      held_options apart same students classes sections seats marks
                      points was categories about groups levels comments].freeze
      FORMS = %w[application/x-www-form-urlencoded multipart/form-data].freeze
      # What is sent where no form is, so that nobody takes it for one.
      NO_FORM = "application/octet-stream"
      SAID_BY_PROXIES = /\AHTTP_(?:FORWARDED|X_FORWARDED_\w+|X_REAL_IP|CLIENT_IP|TRUE_CLIENT_IP)\z/
      BAD = "That request could not be read. Go back, reload the page, and try again."

      # @param raw [Regexp] addresses whose bodies are no forms, whatever they are called
      # @param proxies [Integer] of one's own, in front of this
      # @param secure [Boolean] whether people come by https; a proxy takes that off
      def initialize(app, proxies:, secure:, raw:)
        @app = app
        @raw = raw
        @proxies = proxies
        @secure = secure
      end

      def call(env)
        settle_sender(env)
        bare(env) if %w[GET HEAD].include?(env["REQUEST_METHOD"])
        env["CONTENT_TYPE"] = NO_FORM if env["PATH_INFO"].to_s.match?(@raw)
        well_formed?(env) ? @app.call(env) : RequestFilter.refusal(400, BAD)
      end

      # @return [Array] a Rack answer of one sentence
      def self.refusal(status, sentence)
        [status, { "content-type" => "text/html; charset=utf-8" },
         ["<!doctype html><html lang=\"en-GB\"><title>That didn't work · Amber Roost</title>" \
          "<p class=\"refusal\" role=\"alert\">#{Rack::Utils.escape_html(sentence)}</p></html>\n"]]
      end

      private

      # The address is the one that the outermost of one's own proxies saw: so many from the right.
      def settle_sender(env)
        told = env["HTTP_X_FORWARDED_FOR"].to_s
        said = env.keys.select { |name| by_proxy?(name) }
        said.each { |name| env.delete(name) }
        env["roost.forwarded"] = said.any?
        return unless @proxies.positive?

        seen = told.split(",").last(@proxies).map(&:strip)
        env["REMOTE_ADDR"] = seen.first if seen.length == @proxies
        env.merge!("rack.url_scheme" => "https", "HTTPS" => "on") if @secure
      end

      # Asked of every header of every request.
      def by_proxy?(name) = SAID_BY_PROXIES.match?(name)

      # What only asks for something has no body that anybody would look at.
      def bare(env) = env.merge!("rack.input" => StringIO.new, "CONTENT_LENGTH" => "0").delete("CONTENT_TYPE")

      def well_formed?(env)
        query = env["QUERY_STRING"].to_s
        return false unless path?(env["PATH_INFO"]) && query.bytesize <= MOST_QUERY

        request = Rack::Request.new(env)
        (query.empty? || takes?(request.GET)) && (!form?(request) || takes?(request.POST))
      rescue Rack::BadRequest, EOFError, ArgumentError, EncodingError, RangeError
        false
      end

      def path?(path)
        path.bytesize <= MOST_PATH && text?(path.include?("%") ? Rack::Utils.unescape_path(path) : path)
      end

      def takes?(parameters) = sound?(parameters, 0) && shaped?(parameters)

      def form?(request) = FORMS.include?(request.media_type)

      def text?(text)
        text = text.dup.force_encoding(Encoding::UTF_8) unless text.encoding == Encoding::UTF_8
        text.valid_encoding? && !text.include?("\0")
      end

      # Whether everything in there is text, with a limit to how much and how deep. Files that were
      # sent are looked at by those who take them.
      def sound?(part, depth, count = [0])
        return false if depth > MOST_DEPTH || (count[0] += 1) > MOST_PARAMETERS

        case part
        when Hash
          return part[:filename].nil? || text?(part[:filename]) if part[:tempfile]

          part.all? { |name, value| text?(name) && sound?(value, depth + 1, count) }
        when Array then part.all? { |value| sound?(value, depth + 1, count) }
        when String then text?(part)
        else part.nil?
        end
      end

      def shaped?(parameters) = parameters.all? { |name, value| STRUCTURED.include?(name) || single?(value) }

      def single?(value) = value.nil? || value.is_a?(String) || (value.is_a?(Hash) && value.key?(:tempfile))
    end
  end
end

# frozen_string_literal: true

require "sequel"
require "sinatra/base"

module Roost
  module Web
    # What all Sinatra apps here share: pages through Rendering, one kind of error page,
    # and refusals as one sentence with a fitting status.
    class App < Sinatra::Base
      include Rendering

      FILE_NAME = 80 # characters
      NAMELESS = "Amber Roost"

      set :environment, :production
      set :protection, false # the front of the house does it, once (Application)
      set :show_exceptions, false
      set :raise_errors, false
      set :static, false
      set :host_authorization, {}
      set :dump_errors, false # the log gets no addresses (ErrorBoundary)
      set :absolute_redirects, false
      set :prefixed_redirects, false

      # What was said already stands.
      not_found do
        next response.body unless response.body.empty?

        error_page("That page isn't here", "The address may be old, or it belongs to somebody else.")
      end

      error(Sequel::DatabaseConnectionError, Sequel::DatabaseDisconnectError, Sequel::PoolTimeout) do
        status 503
        headers "Retry-After" => "2"
        error_page("One moment", "The database isn't answering. Nothing is lost; try again in a few seconds.")
      end

      error do
        ErrorBoundary.note(env["sinatra.error"])
        error_page("Something went wrong", "Go back and try again. What you had saved is still there.")
      end

      helpers do
        # What was sent and what the address says, as a plain Hash with texts for keys, also within. Sinatra's own Hash
        # turns symbols back into texts, so that whoever takes its fields by symbol finds none.
        # @return [Hash{String=>Object}]
        def params
          return @plain if @plain && @plain_of.equal?(@params)

          @plain_of = @params
          @plain = plain(@params)
        end

        def plain(part)
          case part
          when Hash then part[:tempfile] ? part : part.to_h { |name, each| [name, plain(each)] }
          when Array then part.map { |each| plain(each) }
          else part
          end
        end

        def htmx? = Part.htmx?(env)

        # A page of its own, or one sentence where only a part of a page was asked for.
        def error_page(title, text)
          return partial("refusal", reason: "#{title}. #{text}") if htmx?

          page("error", title: title, layout: "layouts/plain", heading: title, text: text)
        end

        # A refusal from the core or an operation: a small part of the page that asked, or a
        # page with the way back, where what was typed still stands.
        def refuse(reason, code = 422)
          status code
          return partial("refusal", reason: reason) if htmx?

          page("refused", title: "That didn't work", layout: "layouts/plain", reason: reason)
        end

        # The value of a Reading that may be nil (not there) or refused.
        def granted(reading)
          not_found unless reading
          halt refuse(reading.reason) unless reading.ok?
          reading.value
        end

        # What a file may be called by these words; where nothing of them may stand in a name, by ours.
        def file_name(words) = words.gsub(/[^[:alnum:] ]/, "").strip[0, FILE_NAME].then { |name| name.empty? ? NAMELESS : name }

        # A whole number that was sent, as an id or a place; nil of anything else.
        def number(name) = whole(params[name])

        # @return [Integer, nil]
        def whole(text) = text.is_a?(String) && text.match?(/\A\d{1,18}\z/) ? text.to_i : nil

        # A text that was sent; nil of anything else.
        def text(name) = params[name].is_a?(String) ? params[name] : nil
      end
    end
  end
end

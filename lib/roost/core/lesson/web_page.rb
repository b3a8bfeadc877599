# frozen_string_literal: true

require "uri"

module Roost
  module Core
    # The address of a web page to embed: https only, and never one inside the school's or
    # the server's own network.
    module WebPage
      LIMIT = 500
      LOCAL_NAMES = /(?:\A|\.)(?:localhost|local|internal|intranet|lan|home|corp|test|invalid|onion)\z/i
      HTTPS_ONLY = "Only pages whose address begins with https:// can be embedded."
      LOCAL = "That address is inside a private network: students can't reach it, so it can't be embedded."
      UNREADABLE = "That isn't the address of a web page. Copy it from the browser's address bar."

      # @return [Reading] of an address, empty for none
      def self.read(raw)
        Text.read(raw, limit: LIMIT, what: "The address", lines: false).and_then do |text|
          next Reading.ok("") if text.empty?

          uri = parse(text)
          next Reading.refused(UNREADABLE) unless uri&.host
          next Reading.refused(HTTPS_ONLY) unless uri.is_a?(URI::HTTPS)
          next Reading.refused(UNREADABLE) if uri.userinfo

          local?(uri.hostname) ? Reading.refused(LOCAL) : Reading.ok(uri.to_s)
        end
      end

      # What to call the page in a link.
      def self.host(address) = URI.parse(address).host.delete_prefix("www.")

      def self.parse(text)
        URI.parse(text.match?(/\A[a-z][a-z0-9+.-]*:/i) ? text : "https://#{text}")
      rescue URI::InvalidURIError
        nil
      end

      # A name without a dot is one of the local network; so is a number in any notation,
      # since no public page is known by its number.
      def self.local?(host)
        host = host.delete_suffix(".")
        return true if host.include?(":") || host.match?(LOCAL_NAMES) || !host.include?(".")

        host.match?(/\A[0-9.]+\z|\A0x/i) || host.split(".").last.match?(/\A\d|\A0x/i)
      end
      private_class_method :parse, :local?
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    # Bytes as text that may stand in an address: Base64 in the alphabet of RFC 4648, section 5, without padding. From Ruby 3.4 on
    # the library for it is a gem, and the core needs none.
    module UrlText
      # @param bytes [String]
      # @return [String]
      def self.of(bytes) = [bytes].pack("m0").tr("+/", "-_").delete("=")

      # @param text [String] as #of gives it
      # @return [String]
      def self.bytes(text) = text.tr("-_", "+/").unpack1("m")
    end
  end
end

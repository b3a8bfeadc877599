# frozen_string_literal: true

require "json"
require "openssl"
require "rack/utils"

module Roost
  module Web
    # What a window of the builder has saved of a slide beside what two changed (Operations::EditSlide::Clash), as the page
    # keeps it and sends it back: under our own signature, since a slide is made of it.
    module Beside
      MOST = 60_000 # characters

      # @param fields [Hash{Array=>Object}]
      # @return [String]
      def self.write(slide_id, fields)
        text = JSON.generate(fields.to_a)
        "#{signature(slide_id, text)}#{text}"
      end

      # @return [Hash{Array=>Object}] none of what we have not written
      def self.read(slide_id, sent)
        given, text = sent.to_s[0, MOST].then { |raw| [raw[0, 64], raw[64..].to_s] }
        Rack::Utils.secure_compare(given.to_s, signature(slide_id, text)) ? JSON.parse(text).to_h : {}
      end

      def self.signature(slide_id, text)
        OpenSSL::HMAC.hexdigest("SHA256", Roost.settings.session_secret, "beside #{slide_id} #{text}")
      end
      private_class_method :signature
    end
  end
end

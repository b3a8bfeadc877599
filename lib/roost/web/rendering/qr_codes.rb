# frozen_string_literal: true

require "rqrcode"

module Roost
  module Web
    # Addresses as squares for cameras. One takes a twentieth of a second, so those of late are kept.
    module QrCodes
      MADE = Core::LruCache.new(200)
      LOOK = { module_size: 8, use_path: true, viewbox: true, color: "1e1b2e", fill: "fffdf8", offset: 16 }.freeze

      # @param address [String] of ours
      # @return [String] SVG
      def self.svg(address) = MADE.fetch(address) { RQRCode::QRCode.new(address).as_svg(**LOOK).freeze }
    end
  end
end

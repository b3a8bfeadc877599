# frozen_string_literal: true

require "cgi"
require "rqrcode"

module Roost
  module Exchange
    module PassCards
      # The cards as pages of SVG. Made in a process of its own (bin/read), since a QR code takes a
      # twentieth of a second; loads nothing else of the program. All sizes are in millimetres.
      module Pages
        COLUMNS = 2
        A_PAGE = 8
        PAGE = [210, 297].freeze
        MARGIN = [10, 12].freeze
        CARD = [95, 68].freeze
        QR = 34
        INK = "1e1b2e"
        LINE = "8a8599"
        # Room for a name beside the square, and how wide a bold letter is at most, of its height.
        ROOM = 46.0
        WIDE = 0.78

        # @param cards [Array<Array(String, String, String)>] name, pass as it is written, address it leads to
        # @param class_name [String]
        # @param host [String] where the pass is typed
        # @return [Array<String>]
        def self.of(cards, class_name, host)
          cards.each_slice(A_PAGE).map do |some|
            page(some.each_with_index.map { |given, place| moved(card(*given, class_name, host), place) })
          end
        end

        def self.page(cards)
          <<~SVG
            <svg xmlns="http://www.w3.org/2000/svg" width="#{PAGE[0]}mm" height="#{PAGE[1]}mm" viewBox="0 0 #{PAGE.join(" ")}"
              font-family="sans-serif" fill="##{INK}">#{cards.join}</svg>
          SVG
        end

        # A card at its place on the page, with the line it is cut along.
        def self.moved(inside, place)
          row, column = place.divmod(COLUMNS)
          <<~SVG
            <g transform="translate(#{MARGIN[0] + (column * CARD[0])} #{MARGIN[1] + (row * CARD[1])})">
              <rect width="#{CARD[0]}" height="#{CARD[1]}" fill="none" stroke="##{LINE}" stroke-width="0.2" stroke-dasharray="1.5"/>
              #{inside}
            </g>
          SVG
        end

        def self.card(name, pass, address, class_name, host)
          [text(13, fitting(name, 6.0), name, bold: true), text(19.5, fitting(class_name, 3.6), class_name),
           text(29, 3.2, "Point a camera at the"), text(33.5, 3.2, "square, or type the pass at"),
           text(38, fitting(host, 3.2), host, bold: true), text(42.5, 3.2, "Keep it to yourself."),
           text(60, 7.4, pass, bold: true), qr(address)].join
        end

        # @return [Float] height of letters at which a text fits beside the square
        def self.fitting(words, most) = [most, ROOM / (WIDE * [words.length, 1].max)].min

        def self.text(top, size, words, bold: false)
          weight = bold ? "bold" : "normal"
          %(<text x="6" y="#{top}" font-size="#{size.round(2)}" font-weight="#{weight}">#{CGI.escapeHTML(words)}</text>)
        end

        def self.qr(address)
          code = RQRCode::QRCode.new(address)
          scale = (QR / code.modules.length.to_f).round(4)
          path = code.as_svg(use_path: true, standalone: false, module_size: 1, color: INK)
          %(<g transform="translate(#{CARD[0] - QR - 5} 8) scale(#{scale})">#{path}</g>)
        end
        private_class_method :page, :moved, :card, :fitting, :text, :qr
      end
    end
  end
end

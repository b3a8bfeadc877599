# frozen_string_literal: true

require "rqrcode_core"
require_relative "../pdf_document"

module Roost
  module Exchange
    module PassCards
      # The cards as pages of a PDF. Runs in a process of its own (bin/read) and loads nothing else of the program. All
      # sizes are in points.
      class Pages
        COLUMNS = 2
        ROWS = 4
        CARD = [268, 193].freeze
        TOP = 808 # of the first row, from below
        LEFT = 29
        QR = 96
        LINE = "8A8599"
        # Room for a name beside the square.
        ROOM = 132

        # What takes long: a twentieth of a second each.
        # @param addresses [Array<String>] they lead to
        # @return [Array<Array<Array(Integer, Integer, Integer)>>] of each, the dark runs: row, first and length; the last
        #   entry is how many modules a side has
        def self.codes(addresses)
          addresses.map do |address|
            rows = RQRCodeCore::QRCode.new(address).modules
            runs = rows.each_with_index.flat_map do |row, at|
              row.each_with_index.chunk_while { |one, other| one.first == other.first }
                 .select { |run| run.first.first }.map { |run| [at, run.first.last, run.length] }
            end
            [*runs, rows.length]
          end
        end

        # @param cards [Array<Array(String, String, Array)>] name, pass as it is written, code as above
        # @param class_name [String]
        # @param host [String] where the pass is typed
        # @return [String]
        def self.pdf(cards, class_name, host) = new(class_name, host, cards.length + 1).pdf(cards)

        def initialize(class_name, host, cards)
          @class_name = class_name
          @host = host
          @document = PdfDocument.new("Student passes of #{class_name}", margin: 0, most_drawn: cards)
        end

        # @return [String]
        def pdf(cards)
          cards.each_slice(COLUMNS * ROWS).with_index do |some, page|
            paper.start_new_page if page.positive?
            some.each_with_index { |card, place| card(*card, *corner(place)) }
          end
          paper.render
        end

        private

        attr_reader :document

        def paper = document.paper

        # @return [Array(Integer, Integer)] left and top
        def corner(place)
          row, column = place.divmod(COLUMNS)
          [LEFT + (column * CARD[0]), TOP - (row * CARD[1])]
        end

        # With the line along which it is cut.
        def card(name, pass, code, left, top)
          paper.stroke_color(LINE)
          paper.line_width(0.5)
          paper.dash(4)
          paper.stroke_rectangle([left, top], *CARD)
          paper.undash
          words(left + 17, top, name, pass)
          qr(code, left + CARD[0] - QR - 14, top - 22)
        end

        def words(left, top, name, pass)
          [[22, 17, name, true], [45, 10, @class_name, false], [74, 9, "Point a camera at the", false],
           [87, 9, "square, or type the pass at", false], [100, 9, @host, true], [113, 9, "Keep it to yourself.", false]]
            .each { |down, size, text, bold| document.line(text, at: [left, top - down], width: ROOM, size: size, bold: bold) }
          document.line(pass, at: [left, top - 148], width: CARD[0] - 34, size: 21, bold: true)
        end

        def qr(code, left, top)
          *runs, side = code
          module_size = QR / side.to_f
          paper.fill_color(PdfDocument::INK)
          runs.each do |row, first, length|
            paper.rectangle([left + (first * module_size), top - (row * module_size)], length * module_size, module_size)
          end
          paper.fill
        end
      end
    end
  end
end

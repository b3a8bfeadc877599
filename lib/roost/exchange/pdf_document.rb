# frozen_string_literal: true

require "cgi"
require "fileutils"
require "prawn"
require "tmpdir"

module Roost
  module Exchange
    # A PDF to be made, with a title and a language, in which any script can be written: letters that stand one after the
    # other as text, all others as a picture, drawn by Pango (libvips' programs) with Debian's Noto fonts, since
    # Prawn neither joins nor turns letters. Used by a process of its own (bin/read); loads nothing else of the program.
    # All sizes are in points.
    class PdfDocument
      # Debian's fonts-dejavu-core, which has no slanted letters.
      FONTS = { normal: "DejaVuSans.ttf", bold: "DejaVuSans-Bold.ttf", italic: "DejaVuSans.ttf",
                bold_italic: "DejaVuSans-Bold.ttf" }.freeze
      FOLDER = "/usr/share/fonts/truetype/dejavu"
      LANGUAGE = "en-GB" # as the pages of the program have it
      INK = "251F33"
      QUIET = "625B78"
      LEFT_OUT = "Some letters could not be set on paper: ▯ stands for them. The page itself has them: print it."
      SIZE = 10.5
      # Letters that stand one after the other from left to right, as they are written; no small coloured pictures.
      PLAIN = /\A(?:(?!\p{Emoji_Presentation})[\p{Latin}\p{Greek}\p{Cyrillic}\p{Common}\p{Inherited}])*\z/
      DOTS = 4 # a point, of letters that are drawn
      MOST_LETTERS = 700 # of a picture, so that it fits on a page
      LONG = 4000 # a line that isn't to be broken
      BOX = "▯"
      TAG = %r{</?[a-z]+>}

      # Words without marks, for #write.
      def self.escaped(words) = words.gsub("&", "&amp;").gsub("<", "&lt;").gsub(">", "&gt;")

      # @return [Prawn::Document]
      attr_reader :paper

      # @param margin [Integer]
      # @param size [String] "A4" or "LETTER"
      # @param most_drawn [Integer] texts that are drawn, a tenth of a second each; boxes stand for more
      def initialize(title, most_drawn:, margin: 50, size: "A4")
        @most_drawn = most_drawn
        @paper = Prawn::Document.new(page_size: size, margin: margin, info: { Title: title })
        paper.renderer.state.store.root.data.merge!(Lang: PDF::Core::LiteralString.new(LANGUAGE),
                                                    ViewerPreferences: { DisplayDocTitle: true })
        paper.font_families.update("Paper" => FONTS.transform_values { |name| File.join(FOLDER, name) })
        paper.font("Paper", size: SIZE)
        paper.fill_color(INK)
        paper.default_leading(2)
        @drawn = {}
      end

      # Whether something could not be written, and a box stands for it.
      def incomplete? = @incomplete == true

      # @param words [String] that may have the marks Prawn knows: <b>, <i>, <strikethrough>; &, < and > are escaped
      # @param size [Numeric]
      def write(words, size: SIZE, bold: false)
        words.split("\n", -1).slice_when { |one, other| plain?(one) != plain?(other) }.each do |lines|
          next lines.each { |line| parts(line).each { |part| write_drawn(part, size, bold) } } unless plain?(lines.first)

          paper.text(lines.join("\n"), size: size, style: bold ? :bold : :normal, inline_format: true)
        end
      end

      # As high as one line; where the words don't fit, smaller and on two.
      # @param at [Array<Numeric>] left and top
      def line(words, at:, width:, size:, bold: false)
        if plain?(words)
          return paper.text_box(words, at: at, width: width, height: size * 1.5, size: size, leading: 0,
                                       style: bold ? :bold : :normal, overflow: :shrink_to_fit, min_font_size: 3)
        end

        picture = drawn(CGI.escapeHTML(words), size, bold, LONG)
        picture ? paper.image(picture, at: at, **as_large(picture, width)) : box(size, at)
      end

      # As #write, of words without marks.
      def plain(words, **look) = write(PdfDocument.escaped(words), **look)

      # In grey, whatever is written meanwhile.
      def quietly
        paper.fill_color(QUIET)
        yield
        paper.fill_color(INK)
      end

      # Begins a page where less than that is left.
      def room(height) = paper.cursor < height && paper.start_new_page

      # Says at the end that something could not be written, where that is so.
      def say_what_is_missing
        return unless incomplete?

        paper.move_down(14)
        quietly { paper.text(LEFT_OUT, size: 9) }
      end

      private

      def plain?(words)
        words.ascii_only? ||
          (words.match?(PLAIN) && words.each_char.all? { |letter| letter.ascii_only? || paper.font.glyph_present?(letter) })
      end

      # A long line in pieces; these have no marks.
      def parts(line)
        return [line] if line.length <= MOST_LETTERS

        line.gsub(TAG, "").scan(/\S.{0,#{MOST_LETTERS - 1}}(?=\s|\z)|\S{1,#{MOST_LETTERS}}/o)
      end

      def write_drawn(words, size, bold)
        picture = drawn(words.gsub("strikethrough>", "s>"), size, bold, paper.bounds.width)
        return paper.text(BOX, size: size) unless picture

        paper.image(picture, scale: 1.0 / DOTS)
        paper.move_down(2 + (size * 0.2))
      end

      # @return [String, nil] path of a PNG; nil when it could not be drawn
      def drawn(words, size, bold, width)
        key = [words, size, bold, width]
        return @drawn[key] if @drawn.key?(key)

        path = File.join(folder, "#{@drawn.length}.png")
        marked = bold ? "<b>#{words}</b>" : words
        # A mark may go over several lines, of which this is one: then without it.
        done = @drawn.length < @most_drawn && [marked, words.gsub(TAG, "")].any? { |each| draw(path, each, size, width) }
        @incomplete ||= !done
        @drawn[key] = (path if done)
      end

      def draw(path, words, size, width)
        system("vips", "text", path, %(<span foreground="##{INK}">#{words}</span>), "--font", "Noto Sans #{size}", "--rgba",
               "--dpi", (72 * DOTS).to_s, "--width", (width * DOTS).to_i.to_s, "--wrap", "word-char", "--spacing", "2",
               out: File::NULL, err: File::NULL)
      end

      # As it was drawn, or as wide as there is room.
      def as_large(picture, width)
        drawn = File.open(picture, "rb") { |file| file.read(20).unpack1("@16N") } / DOTS.to_f
        drawn > width ? { width: width } : { width: drawn }
      end

      def box(size, left_top)
        paper.draw_text(BOX, at: [left_top.first, left_top.last - size], size: size)
      end

      # Gone with the process.
      def folder = @folder ||= Dir.mktmpdir.tap { |path| at_exit { FileUtils.rm_rf(path) } }
    end
  end
end

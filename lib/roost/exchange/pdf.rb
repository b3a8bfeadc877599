# frozen_string_literal: true

module Roost
  module Exchange
    # A PDF read page by page with Poppler's programs: how many pages, the picture of each,
    # and its own text.
    class Pdf
      MOST_PAGES = 100
      LONGEST_SIDE = 1600
      MOST_TEXT = 65_536 # bytes a page
      LOCKED = "is locked with a password. Save a copy without one and add that."
      BROKEN = "is damaged or not a PDF. Save it again and retry."
      EMPTY = "has no pages."

      # @param path [String]
      def initialize(path)
        @path = path
      end

      # @return [Core::Reading] of how many pages there are; refused in words that go on after the file's name
      def pages
        told = Confined.run("pdfinfo", @path, seconds: 10)
        return Core::Reading.refused(LOCKED) if told.complaint.match?(/incorrect password|encrypted/i) && !told.success
        return Core::Reading.refused(BROKEN) unless told.success

        count = told.output.force_encoding("UTF-8").scrub[/^Pages:\s+(\d+)/, 1].to_i
        return Core::Reading.refused(EMPTY) if count.zero?
        if count > MOST_PAGES
          return Core::Reading.refused("has #{count} pages; #{MOST_PAGES} is the most. Split it and add the parts.")
        end

        Core::Reading.ok(count)
      end

      # @param number [Integer] from 1
      # @return [String, nil] the page as PNG; nil when it can't be drawn
      def picture(number)
        drawn = Confined.run("pdftoppm", "-f", number.to_s, "-l", number.to_s, "-scale-to", LONGEST_SIDE.to_s, "-png",
                             "-singlefile", @path, seconds: 40)
        drawn.output if drawn.success && !drawn.output.empty?
      end

      # @return [String] the page's own text as people write it (PageText), "" when it has none
      def text(number)
        told = Confined.run("pdftotext", "-f", number.to_s, "-l", number.to_s, "-nopgbrk", @path, "-", seconds: 10,
                                                                                               output: MOST_TEXT)
        told.success ? PageText.plain(told.output.force_encoding("UTF-8").scrub("")) : ""
      end
    end
  end
end

# frozen_string_literal: true

require "tmpdir"

module Roost
  module Operations
    # Puts a student's own copy on paper: a PDF of what OwnCopy gives. Pictures come as JPEG, so many of them and no more; a
    # class that wants its copies at once takes turns.
    class CopyAsPdf
      MOST_PICTURES = 60
      WIDTH = 1000 # pixels
      # At a time in a process; others are told to come again.
      TURNS = SizedQueue.new(2)
      # A class has the same slides.
      @pictures = Core::LruCache.new(60)

      class << self
        attr_reader :pictures
      end

      # @param copy [OwnCopy::Copy]
      # @param about [String] whose and of when it is
      # @param drawings [Hash{String=>String}] slide id to SVG, of answers that are pictures
      # @return [String, nil] PDF; nil when it could not be made now
      def call(copy, about:, drawings: {})
        Turns.take(TURNS) do
          Dir.mktmpdir do |folder|
            @folder = folder
            @left = MOST_PICTURES
            pages = copy.pages.map { |page| page(page, drawings[page.slide.id]) }
            pages << more(copy.notes) if copy.notes.any?
            Exchange::CopySheet.pdf({ title: copy.row.title, about: about, pages: pages })
          end
        end
      end

      private

      def more(notes)
        { heading: "More of your notes", texts: [], pictures: [], rows: notes.map { |note| ["Your notes", note] } }
      end

      def page(page, drawing)
        slide = page.slide
        { heading: slide.heading.empty? ? slide.name : slide.heading, texts: [slide.text, slide.aside].reject(&:empty?),
          pictures: (drawing ? [] : slide.pictures).filter_map { |picture| file(jpeg(picture.file)) },
          rows: [*(answer(slide.prompt, page.outcome, drawing) if slide.prompt), *said(page)] }
      end

      # @return [Array<Array(String, String)>] see Exchange::CopySheet.pdf
      def answer(prompt, outcome, drawing)
        drawn = drawing && file(of_svg(drawing))
        rows = [drawn ? ["You", drawn, "picture"] : ["You", given(prompt, outcome)]]
        words = Core::Session::Outcome::IN_WORDS[outcome.status]
        rows << ["", words] if words && outcome.mark
        right = prompt.right_in_words if outcome.mark && outcome.mark < 1
        rows << ["Right", right] if right
        rows << ["Why", prompt.explanation, true] unless prompt.explanation.empty?
        rows
      end

      def given(prompt, outcome)
        return "no answer" unless outcome.answer

        outcome.answer.readable? ? prompt.plain(outcome.answer.value) : outcome.answer.typed_text
      end

      def said(page) = [["Your teacher", page.comment], ["Your notes", page.note]].reject { |_, text| text.empty? }

      # @return [String, nil] JPEG
      def jpeg(name)
        CopyAsPdf.pictures.fetch(name) do
          path, type = Store::Media.new.find(name)
          next nil unless path

          type == "image/svg+xml" ? of_svg(File.read(path)) : smaller(path)
        end
      end

      def of_svg(svg)
        drawn = Exchange::Raster.draw(svg, WIDTH)
        drawn && smaller(file(drawn, "png"))
      end

      def smaller(path) = Exchange::Raster.new(path).within(WIDTH, "jpg")&.first

      # @param bytes [String, nil]
      # @return [String, nil] path of a file that lasts as long as the work does
      def file(bytes, extension = "jpg")
        return nil if bytes.nil? || (@left -= 1).negative?

        File.join(@folder, "#{@left}.#{extension}").tap { |path| File.binwrite(path, bytes) }
      end
    end
  end
end

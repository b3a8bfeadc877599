# frozen_string_literal: true

require "fileutils"
require "stringio"
require "tempfile"

module Roost
  module Operations
    # Carries out an import: page after page becomes a slide of the lesson. A page and the
    # note that it is done are one transaction, so a page comes in once, whenever the
    # process dies.
    class BringPagesIn
      GONE = "The lesson is no longer there."
      UNDRAWN = "Page %d could not be drawn; the pages before it are here."

      def call(import_id)
        import = Store::Imports.new.find(import_id)
        return unless import&.coming?

        path = Roost.settings.var("imports", import.file)
        file = readable(import, path)
        return unless file

        @outline = File.extname(path) == ".pptx" ? Exchange::Presentation.outline(path) : []
        import = Store::Imports.new.find(import_id)
        ((import.done + 1)..import.pages).each do |number|
          return clear(path) unless bring(import_id, number, file)
        end
        Store::Imports.new.update(import_id, state: "done")
        clear(path)
      end

      # Ends an import that can't be carried out, with a word to the teacher.
      def give_up(import_id, reason)
        Store::Imports.new.update(import_id, state: "failed", reason: reason)
        nil
      end

      private

      def clear(path) = FileUtils.rm_f([path, "#{path.delete_suffix(File.extname(path))}.pdf"])

      # @return [Exchange::Pdf, Exchange::PictureZip, nil] nil when the import has failed
      def readable(import, path)
        reader = ImportFile::READERS[File.extname(path).delete_prefix(".")]
        return reader.new(path) if reader

        made = Exchange::Presentation.to_pdf(path)
        return give_up(import.id, "“#{import.name}” #{made.reason}") unless made.ok?

        pdf = Exchange::Pdf.new(made.value)
        pages = pdf.pages
        return give_up(import.id, "“#{import.name}” #{pages.reason}") unless pages.ok?

        Store::Imports.new.update(import.id, pages: pages.value)
        pdf
      end

      # @return [true, false, nil] whether to go on
      def bring(import_id, number, file)
        import = Store::Imports.new.find(import_id)
        return false unless import&.coming?

        slide = slide(import, number, file)
        return give_up(import_id, format(UNDRAWN, number)) unless slide

        imports = Store::Imports.new
        imports.transaction do
          import = imports.find(import_id, lock: true)
          next false unless import&.coming? && import.done == number - 1

          added = add(import, slide, number)
          next give_up(import_id, added ? added.reason : GONE) unless added&.ok?

          imports.update(import_id, done: number)
          true
        end
      end

      # @return [Core::Reading, nil] nil when the lesson is gone
      def add(import, slide, number)
        after = number > 1 ? import.slide_id(number - 1) : import.after_slide
        ChangeLesson.new.call(import.account_id, import.lesson_id) do |lesson|
          lesson.slide(slide.id) ? Core::Reading.ok(lesson) : lesson.bringing_in([slide], after: after)
        end
      end

      def slide(import, number, file)
        file.is_a?(Exchange::PictureZip) ? picture_slide(import, number, file) : page_slide(import, number, file)
      end

      # @return [Core::Slide, nil] of a page of a PDF
      def page_slide(import, number, pdf)
        png = pdf.picture(number)
        return nil unless png

        text = pdf.text(number)
        words = Core::Text.read(text[0, Core::Picture::ALT_LIMIT], limit: Core::Picture::ALT_LIMIT, what: "The page").value.to_s
        picture = keep(png, words.empty? ? "Page #{number} of #{import.name}" : words, import.account_id)
        heading, notes = @outline.length == import.pages ? @outline[number - 1] : []
        Core::Slide.new(id: import.slide_id(number), title: title(heading.to_s, text, number), notes: notes(notes.to_s),
                        arrangement: "full", pictures: [picture])
      end

      # @return [Core::Slide, nil] of a picture of a zip
      def picture_slide(import, number, zip)
        bytes = zip.bytes(number) or return nil
        picture = KeepPicture.new.call(import.account_id, StringIO.new(bytes), zip.name(number))
        return nil unless picture.ok?

        title = File.basename(zip.name(number), ".*").tr("_-", "  ").scrub("").strip[0, 80]
        Core::Slide.new(id: import.slide_id(number), title: title, arrangement: "full", pictures: [picture.value])
      end

      def notes(text)
        most = Core::Slide::LIMITS[:notes]
        Core::Text.read(text[0, most], limit: most, what: "The notes").value.to_s
      end

      # @param heading [String] what the program that made it takes for the title
      def title(heading, text, number)
        line = [heading, text].join("\n").lines.map(&:strip).find { |each| each.match?(/[[:alpha:]]{2}/) }
        line ? line[0, 80] : "Page #{number}"
      end

      # As PNG or JPEG, whichever is smaller: drawings and photographs differ.
      def keep(png, alt, account_id)
        photograph, width, height = Tempfile.create("page", binmode: true) do |file|
          file.write(png)
          file.flush
          Exchange::Raster.new(file.path).within(Exchange::Pdf::LONGEST_SIDE, "jpg")
        end
        smaller = { "png" => png, "jpg" => photograph }.min_by { |_, bytes| bytes.bytesize }
        picture = Store::Media.new.keep_picture(smaller[1], extension: smaller[0], width: width, height: height,
                                                            account_id: account_id, alt: alt)
        # The smallest is wanted first; the others are made when they are asked for.
        picture.tap { MakeSizes.new.call(picture, picture.widths.first(1)) }
      end
    end
  end
end

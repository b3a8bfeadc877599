# frozen_string_literal: true

require "fileutils"
require "marcel"
require "securerandom"

module Roost
  module Operations
    # Takes in a file of slides (PDF, a zip of pictures, or PPTX where LibreOffice is there), and leaves its
    # pages to a job in the background. What can't be used is refused at once, and the
    # lesson stays as it is.
    class ImportFile
      MOST_BYTES = 50 * 1024 * 1024
      SLIDES = %w[application/vnd.openxmlformats-officedocument.presentationml.presentation application/zip].freeze
      # What tells of pages at once.
      READERS = { "pdf" => Exchange::Pdf, "zip" => Exchange::PictureZip }.freeze
      FULL = "can't be stored: the disk is full. The lesson is as it was; tell whoever runs this server."

      # @param lesson_id [Integer] of a lesson this teacher may edit
      # @param io [File] of the upload
      # @param name [String] the file's name
      # @param after [String, nil] id of the slide the pages come after
      # @return [Core::Reading] of the import's id
      def call(account_id, lesson_id, io, name, after:)
        name = File.basename(name.to_s)[0, 80]
        return refuse(name, "is larger than 50 MB. Make it smaller, or add it in parts.") if io.size > MOST_BYTES

        extension = extension(io, name)
        return refuse(name, Exchange::Presentation::LOCKED) if extension.nil? && Exchange::Presentation.locked?(io)
        return refuse(name, "is no PDF or zip of pictures. Save your slides as PDF and add that.") unless extension
        return refuse(name, Exchange::Presentation::MISSING) if extension == "pptx" && !Exchange::Presentation.possible?

        path = keep(io, extension)
        pages = READERS.key?(extension) ? READERS[extension].new(path).pages : Core::Reading.ok(nil)
        return enqueue(account_id, lesson_id, path, name, after, pages.value) if pages.ok?

        File.delete(path)
        refuse(name, pages.reason)
      rescue Errno::ENOSPC, Errno::EFBIG, Errno::EDQUOT
        refuse(name, FULL)
      end

      private

      def refuse(name, why) = Core::Reading.refused("“#{name}” #{why}")

      def extension(io, name)
        case Marcel::MimeType.for(io)
        when "application/pdf" then "pdf"
        when *SLIDES then Marcel::MimeType.for(io, name: name) == SLIDES.first ? "pptx" : "zip"
        end
      end

      def keep(io, extension)
        path = Roost.settings.var("imports", "#{SecureRandom.hex(16)}.#{extension}")
        io.rewind
        File.open(path, "wb", 0o600) { |file| IO.copy_stream(io, file) }
        path
      rescue SystemCallError
        FileUtils.rm_f(path)
        raise
      end

      def enqueue(account_id, lesson_id, path, name, after, pages)
        imports = Store::Imports.new
        imports.transaction do
          id = imports.create(account_id: account_id, lesson_id: lesson_id, file: File.basename(path), name: name,
                              after_slide: after, pages: pages)
          Store::Background.new.later("import_pages", id)
          Core::Reading.ok(id)
        end
      end
    end
  end
end

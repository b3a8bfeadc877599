# frozen_string_literal: true

require "fileutils"
require "json"

module Roost
  module Exchange
    # Slides of an office program, made a PDF by LibreOffice where that is on the machine.
    class Presentation
      PROGRAM = "soffice"
      LOCKED = "is locked with a password. Save a copy without one and add that."
      # How a locked file of an office program begins (see Table::Reader).
      COMPOUND = "\xD0\xCF\x11\xE0".b
      MISSING = "needs LibreOffice on the server, which isn't there. Save it as PDF and add that."
      BROKEN = "could not be read as slides. Save it as PDF and add that."

      def self.possible? = Confined.program?(PROGRAM)

      # @param io [IO]
      def self.locked?(io)
        io.rewind
        io.read(4) == COMPOUND && io.read.include?("EncryptedPackage".encode("UTF-16LE").b)
      ensure
        io.rewind
      end

      # Titles and speaker notes, slide by slide as they are shown; none where they can't be read.
      # @return [Array<Array(String, String)>]
      def self.outline(path)
        done = Confined.read("outline", path)
        done.success ? JSON.parse(done.output.force_encoding(Encoding::UTF_8)) : []
      end

      # @param path [String] of the file; the PDF goes beside it
      # @return [Core::Reading] of the path of the PDF
      def self.to_pdf(path)
        return Core::Reading.refused(MISSING) unless possible?

        Dir.mktmpdir do |profile|
          Confined.run(PROGRAM, "-env:UserInstallation=file://#{profile}", "--headless", "--norestore", "--convert-to", "pdf",
                       "--outdir", File.dirname(path), path, seconds: 120, memory: 8 * 1024 * 1024 * 1024)
        end
        made = "#{path.delete_suffix(File.extname(path))}.pdf"
        File.exist?(made) ? Core::Reading.ok(made) : Core::Reading.refused(BROKEN)
      end
    end
  end
end

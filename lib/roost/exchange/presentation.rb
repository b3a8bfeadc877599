# frozen_string_literal: true

require "fileutils"

module Roost
  module Exchange
    # Slides of an office program, made a PDF by LibreOffice where that is on the machine.
    class Presentation
      PROGRAM = "soffice"
      MISSING = "needs LibreOffice on the server, which isn't there. Save it as PDF and add that."
      BROKEN = "could not be read as slides. Save it as PDF and add that."

      def self.possible? = Confined.program?(PROGRAM)

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

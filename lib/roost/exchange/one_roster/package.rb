# frozen_string_literal: true

require "csv"
require "zip"
require_relative "../csv_text"

module Roost
  module Exchange
    module OneRoster
      # A OneRoster CSV package (1EdTech, versions 1.1 and 1.2): a zip of manifest.csv and the files it names. Read in
      # a process of its own (bin/read); loads little else of the program. What is none is Unreadable.
      class Package
        FILES = %w[orgs academicSessions courses classes users enrollments].freeze
        # What belongs together where all enrolments are told.
        NEEDED = %w[enrollments users classes].freeze
        VERSIONS = %w[1.1 1.2].freeze
        MOST_UNPACKED = 60 * 1024 * 1024
        MOST_PARTS = 200
        MOST_ROWS = 60_000
        MOST_ID = 255 # characters
        NO_MANIFEST = "has no manifest.csv in it, so it isn't a OneRoster package."
        UNREADABLE = "could not be read as a OneRoster package (a zip of CSV files)."
        BLOATED = "unpacks to more than 60 MB, or to too many files. Export fewer classes."
        LONG = "has more than 60 000 rows in %s.csv. Export fewer classes."
        ABSENT = "says that it has %s.csv, and it isn't there. Export it again."
        WITHOUT = "has no %s in it. Export it again with them."
        OTHER = "is of OneRoster %s. Export it as 1.2 or 1.1."
        BROKEN = "has a %s.csv that could not be read. Export it again."
        BARE = "%s.csv has no column %s. Export it again."
        COLUMNS = {
          "orgs" => %w[sourcedId name], "academicSessions" => %w[sourcedId schoolYear], "courses" => %w[sourcedId title],
          "classes" => %w[sourcedId title], "users" => %w[sourcedId givenName familyName],
          "enrollments" => %w[classSourcedId userSourcedId role]
        }.freeze

        # @param path [String] of a zip
        # @param today [String] ISO 8601
        # @yieldparam listing [Listing]
        # @return [Hash] what the block gives
        def self.read(path, today)
          Zip::File.open(path) { |zip| yield Listing.new(new(zip), today) }
        rescue Zip::Error, Zlib::Error, ArgumentError, EncodingError
          raise Unreadable, UNREADABLE
        end

        def initialize(zip)
          @parts = zip.reject { |entry| entry.directory? || entry.name.start_with?("__MACOSX/") }
          refuse(BLOATED) if @parts.length > MOST_PARTS || @parts.sum(&:size) > MOST_UNPACKED
          @says = manifest
          @tables = FILES.to_h { |name| [name, told?(@says, name) ? table(name) : []] }
        end

        # @param name [String] of FILES
        # @return [Array<Array(Integer, Hash)>] numbers of rows, as in the file, and what stands in them
        def rows(name) = @tables.fetch(name)

        # Whether the enrolments are all there are, and not what has changed since.
        def bulk? = @says["file.enrollments"] == "bulk"

        private

        def manifest
          part("manifest") || refuse(NO_MANIFEST)
          says = parsed("manifest").to_h { |_, row| [row["propertyName"].to_s.strip, row["value"].to_s.strip] }
          version = says["oneroster.version"].to_s
          refuse(format(OTHER, version.empty? ? "no known version" : version[0, 20])) unless VERSIONS.include?(version)
          changes = %w[enrollments users].any? { |name| says["file.#{name}"] == "delta" }
          missing = changes ? nil : NEEDED.find { |name| !told?(says, name) }
          refuse(format(WITHOUT, missing)) if missing
          says
        end

        def told?(says, name) = %w[bulk delta].include?(says["file.#{name}"])

        def table(name)
          refuse(format(ABSENT, name)) unless part(name)
          parsed(name)
        end

        def part(name) = @parts.find { |entry| File.basename(entry.name).casecmp?("#{name}.csv") }

        def parsed(name)
          lines = CSV.new(text(name)).each.lazy.first(MOST_ROWS + 2)
          header = (lines.shift || []).map { |cell| cell.to_s.strip }
          lacking = COLUMNS.fetch(name, []) - header
          refuse(format(BARE, name, lacking.first)) if lacking.any?
          refuse(format(LONG, name)) if lines.length > MOST_ROWS
          lines.each_with_index.map { |cells, place| [place + 2, header.zip(cells.map { |cell| CsvText.unquoted(cell) }).to_h] }
               .reject { |_, row| row.values.all? { |cell| cell.to_s.strip.empty? } }
        rescue CSV::MalformedCSVError
          refuse(format(BROKEN, name))
        end

        # No more than it says to be: what it says has been looked at.
        def text(name)
          entry = part(name)
          text = entry.get_input_stream.read(entry.size + 1).to_s.force_encoding(Encoding::UTF_8)
          refuse(format(BROKEN, name)) if text.bytesize > entry.size || !text.valid_encoding?
          text.delete_prefix("\uFEFF")
        end

        def refuse(reason) = raise(Unreadable, reason)
      end
    end
  end
end

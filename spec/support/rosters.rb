# frozen_string_literal: true

require "csv"
require "tempfile"
require "zip"

# OneRoster packages, as a school's own records give them.
module Rosters
  # @param people [Hash{String=>Array}] ids to given and family name, perhaps a number and a status
  # @param classes [Hash{String=>Array}] ids to a title, perhaps a status
  # @param places [Array<Array(String, String)>] class and person, perhaps a role, a status and an end
  # @param how [String] "bulk" or "delta"
  # @return [Tempfile]
  def roster(people: {}, classes: {}, places: [], how: "bulk", manifest: {}, files: {})
    said = { "manifest.version" => "1.0", "oneroster.version" => "1.2", "file.users" => how, "file.classes" => how,
             "file.enrollments" => how }.merge(manifest)
    zipped({ "manifest" => [%w[propertyName value], *said], "users" => users(people), "classes" => classes_file(classes),
             "enrollments" => enrollments(places) }.merge(files))
  end

  # Reads packages here instead of in a process of its own, which takes longer to begin than to read.
  def read_rosters_here
    confined = Roost::Exchange::Confined
    allow(confined).to receive(:read).with(/roster|classes/, any_args) do |task, path, today, *ids, **|
      said = Roost::Exchange::OneRoster::Package.read(path, today) do |listing|
        JSON.generate(task == "roster" ? listing.overview : listing.chosen(ids))
      end
      confined::Done.new(success: true, status: 0, output: said, complaint: "")
    rescue Roost::Exchange::Unreadable => e
      confined::Done.new(success: false, status: confined::Done::REFUSED, output: e.message, complaint: "")
    end
  end

  # @param files [Hash{String=>Array<Array>, String, nil}] names to rows, or to what stands in them; nil leaves a file out
  def zipped(files)
    bytes = Zip::OutputStream.write_buffer do |out|
      files.compact.each do |name, rows|
        out.put_next_entry("#{name}.csv")
        out.write(rows.is_a?(String) ? rows : CSV.generate { |csv| rows.each { |row| csv << row } })
      end
    end
    Tempfile.create("roster").tap do |file|
      file.binmode
      file.write(bytes.string)
      file.rewind
    end
  end

  def users(people)
    [%w[sourcedId status givenName familyName identifier email preferredGivenName],
     *people.map { |id, (given, family, number, status, mail, preferred)| [id, status, given, family, number, mail, preferred] }]
  end

  def classes_file(classes)
    [%w[sourcedId status title courseSourcedId termSourcedIds subjects],
     *classes.map { |id, (title, status)| [id, status, title, "k1", "t1", nil] }]
  end

  def enrollments(places)
    [%w[sourcedId status classSourcedId userSourcedId role endDate],
     *places.each_with_index.map do |(klass, person, role, status, ends), at|
       ["e#{at}", status, klass, person, role || "student", ends]
     end]
  end
end

RSpec.configure { |config| config.include Rosters }

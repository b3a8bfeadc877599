# frozen_string_literal: true

require "date"
require_relative "details"

module Roost
  module Exchange
    module OneRoster
      # What a package says about classes and who is in them, put together out of its files; what it refers to and
      # does not hold may be known to us, and is given by its id alone. Loads nothing else of the program.
      class Listing
        MOST_REASONS = 20
        STUDENT = "student"
        TEACHER = "teacher"

        # @param package [Package]
        # @param today [String] ISO 8601: enrolments that ended before are over, those that begin later don't count yet
        def initialize(package, today)
          @package = package
          @today = today
          @details = Details.new(package)
          @reasons = []
          @users = by_id("users")
          @classes = by_id("classes")
          @enrolments = enrolments.group_by { |_, row| row["classSourcedId"] }
        end

        # @return [Hash] "bulk"; "classes": a row each with "id", "title" (nil where it is not in the file),
        #   "subject", "year", "gone", "students", "teachers" (e-mail addresses); "people": how many users are told
        #   of; "reasons": why rows can't be used, and "refused": how many
        def overview
          classes = ids.map { |id| about(id).merge("students" => taking_part(id).length, "teachers" => addresses(id)) }
          { "bulk" => @package.bulk?, "people" => @users.length, "refused" => @reasons.length,
            "reasons" => @reasons.first(MOST_REASONS), "classes" => classes }
        end

        # @param ids [Array<String>] of classes
        # @return [Hash] "bulk"; "classes": as above, with "students" (a list of "row", "id", "given", "family", "number",
        #   "details"), "coming" (as "students", of those who begin later, with "begins"), "leaving" (ids), "former" (ids of
        #   teachers who leave) and "details";
        #   "people": as "students", of all users where these are what has changed
        def chosen(ids)
          people = @package.bulk? ? [] : @users.keys.map { |id| person(id, @users[id].first) }
          { "bulk" => @package.bulk?, "people" => people, "classes" => (ids & self.ids).map { |id| told(id) } }
        end

        private

        def ids = @classes.keys | @enrolments.keys

        def told(id)
          here = taking_part(id)
          coming = coming(id, here)
          begin_later = coming.map { |row, each| person(each["userSourcedId"], row).merge("begins" => begins(each)) }
          leaving = (@enrolments.fetch(id, []) - here - coming).filter_map { |_, each| each["userSourcedId"] if student?(each) }
          about(id).merge("students" => here.map { |row, each| person(each["userSourcedId"], row) },
                          "coming" => begin_later, "leaving" => leaving.uniq, "former" => former_teachers(id),
                          "details" => @details.of_class(@classes[id]&.last, teachers(id)))
        end

        # @return [Hash{String=>Array(Integer, Hash)}] ids to the rows they stand in
        def by_id(name)
          @package.rows(name).each_with_object({}) do |(number, row), all|
            reason = wrong(row["sourcedId"], all)
            reason ? note(name, number, reason) : all[row["sourcedId"].strip] = [number, row]
          end
        end

        def wrong(id, others)
          return "has no sourcedId" if id.to_s.strip.empty?
          return "has a sourcedId that is too long" if id.length > Package::MOST_ID || id.match?(/[[:cntrl:]]/)

          "has the sourcedId of another row" if others.key?(id.strip)
        end

        def enrolments
          @package.rows("enrollments").select do |number, row|
            ids = row.values_at("classSourcedId", "userSourcedId").map { |id| id.to_s.strip }
            row["classSourcedId"], row["userSourcedId"] = ids
            reason = ids.any?(&:empty?) ? "does not say who or where" : unknown(row)
            note("enrollments", number, reason) if reason
            reason.nil?
          end
        end

        # Of a package that tells everything, what is referred to stands in it.
        def unknown(row)
          return nil unless @package.bulk?
          return "is for a class that isn't in classes.csv" unless @classes.key?(row["classSourcedId"])

          "is of somebody who isn't in users.csv" unless @users.key?(row["userSourcedId"])
        end

        def note(name, number, reason) = @reasons << "#{name}.csv, row #{number}, #{reason}."

        def taking_part(id)
          enrolled(id).reject { |_, row| later?(row) }
        end

        # Who begins later, and is not in it already by another row.
        def coming(id, here)
          places = here.map { |_, row| row["userSourcedId"] }
          enrolled(id).select { |_, row| later?(row) && !places.include?(row["userSourcedId"]) }
        end

        # One row a person: the one by which they are in it now, where there are several.
        def enrolled(id)
          @enrolments.fetch(id, []).select { |_, row| student?(row) && !gone?(row) && !over?(row) }
                     .sort_by { |_, row| later?(row) ? 1 : 0 }.uniq { |_, row| row["userSourcedId"] }
        end

        def later?(row) = begins(row).to_s > @today

        # @return [String, nil] ISO 8601
        def begins(row)
          said = row["beginDate"].to_s.strip[/\A\d{4}-\d\d-\d\d/]
          said if said && Date.valid_date?(*said.split("-").map(&:to_i))
        end

        def student?(row) = row["role"].to_s.strip.casecmp?(STUDENT)

        def gone?(row) = row["status"].to_s.strip.casecmp?("tobedeleted")

        # A user who goes is out of every class.
        def over?(row)
          ends = row["endDate"].to_s.strip
          (!ends.empty? && ends < @today) || left?(row["userSourcedId"])
        end

        def left?(id) = @users.key?(id) && gone?(@users[id].last)

        # @return [Array<Hash>] rows of users.csv
        def teachers(id)
          teaching(id).reject { |row| gone?(row) }.filter_map { |row| @users[row["userSourcedId"]]&.last }.uniq
        end

        def former_teachers(id) = teaching(id).select { |row| gone?(row) }.map { |row| row["userSourcedId"] }

        def teaching(id) = @enrolments.fetch(id, []).map(&:last).select { |row| row["role"].to_s.strip.casecmp?(TEACHER) }

        def addresses(id) = teachers(id).filter_map { |row| row["email"]&.strip&.slice(0, 200) }.first(10)

        def about(id)
          row = @classes[id]&.last
          { "id" => id, "title" => row && row["title"].to_s[0, 500], "subject" => row && subject(row), "year" => row && year(row),
            "gone" => row ? gone?(row) : false }
        end

        def subject(row)
          said = row["subjects"].to_s.split(",").first.to_s.strip
          said.empty? ? plain(@details.found("courses", row["courseSourcedId"])["title"]) : said
        end

        # The school year by the year it ends in, as the standard has it.
        def year(row)
          ends = plain(@details.sessions(row).first&.fetch("schoolYear", nil))
          ends.match?(/\A\d{4}\z/) ? "#{ends.to_i - 1}/#{ends[2, 2]}" : ""
        end

        def plain(cell) = cell.to_s.strip[0, 500]

        # @return [Hash] with names nil where the file does not hold the person
        def person(id, row_number)
          row = @users[id]&.last
          { "row" => row_number, "id" => id, "given" => row && name(row, "Given"), "family" => row && name(row, "Family"),
            "number" => row && plain(row["identifier"]), "gone" => left?(id), "details" => @details.of_person(row) }
        end

        def name(row, part)
          preferred = plain(row["preferred#{part}Name"])
          preferred.empty? ? plain(row["#{part.downcase}Name"]) : preferred
        end
      end
    end
  end
end

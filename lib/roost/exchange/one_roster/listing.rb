# frozen_string_literal: true

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
        # @param today [String] ISO 8601: enrolments that ended before are over
        def initialize(package, today)
          @package = package
          @today = today
          @reasons = []
          @users = by_id("users")
          @classes = by_id("classes")
          @enrolments = enrolments.group_by { |_, row| row["classSourcedId"] }
        end

        # @return [Hash] "bulk"; "classes": a row each with "id", "title" (nil where it is not in the file),
        #   "subject", "year", "gone", "students", "teachers" (e-mail addresses); "people": how many users are told
        #   of; "reasons": why rows can't be used, and "refused": how many
        def overview
          ids = @classes.keys | @enrolments.keys
          { "bulk" => @package.bulk?, "people" => @users.length, "refused" => @reasons.length,
            "reasons" => @reasons.first(MOST_REASONS),
            "classes" => ids.map do |id|
              about(id).merge("students" => taking_part(id).length, "teachers" => teachers(id))
            end }
        end

        # @param ids [Array<String>] of classes
        # @return [Hash] "bulk"; "classes": as above, with "students" (a list of "row", "id", "given", "family", "number") and
        #   "leaving" (ids); "people": as "students", of all users where these are what has changed
        def chosen(ids)
          { "bulk" => @package.bulk?, "people" => @package.bulk? ? [] : @users.keys.map { |id| person(id, @users[id].first) },
            "classes" => (ids & (@classes.keys | @enrolments.keys)).map do |id|
              rows = @enrolments.fetch(id, [])
              here = taking_part(id)
              about(id).merge("students" => here.map { |row, each| person(each["userSourcedId"], row) },
                              "leaving" => (rows - here).map { |_, each| each["userSourcedId"] if student?(each) }.compact.uniq)
            end }
        end

        private

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
          @enrolments.fetch(id, []).select { |_, row| student?(row) && !gone?(row) && !over?(row) }
                     .uniq { |_, row| row["userSourcedId"] }
        end

        def student?(row) = row["role"].to_s.strip.casecmp?(STUDENT)

        def gone?(row) = row["status"].to_s.strip.casecmp?("tobedeleted")

        # A user who goes is out of every class.
        def over?(row)
          ends = row["endDate"].to_s.strip
          (!ends.empty? && ends < @today) || left?(row["userSourcedId"])
        end

        def left?(id) = @users.key?(id) && gone?(@users[id].last)

        def teachers(id)
          rows = @enrolments.fetch(id, []).select { |_, row| row["role"].to_s.strip.casecmp?(TEACHER) && !gone?(row) }
          rows.filter_map { |_, row| @users.dig(row["userSourcedId"], 1, "email") }.map { |email| email.strip[0, 200] }.first(10)
        end

        def about(id)
          row = @classes[id]&.last
          { "id" => id, "title" => row && row["title"].to_s[0, 500], "subject" => row && subject(row), "year" => row && year(row),
            "gone" => row ? gone?(row) : false }
        end

        def subject(row)
          said = row["subjects"].to_s.split(",").first.to_s.strip
          said.empty? ? found("courses", row["courseSourcedId"], "title") : said
        end

        # The school year by the year it ends in, as the standard has it.
        def year(row)
          ends = found("academicSessions", row["termSourcedIds"].to_s.split(",").first, "schoolYear")
          ends.match?(/\A\d{4}\z/) ? "#{ends.to_i - 1}/#{ends[2, 2]}" : ""
        end

        def found(name, id, column)
          @found ||= {}
          rows = @found[name] ||= @package.rows(name).to_h { |_, row| [row["sourcedId"].to_s.strip, row] }
          rows.dig(id.to_s.strip, column).to_s.strip[0, 500]
        end

        # @return [Hash] with names nil where the file does not hold the person
        def person(id, row_number)
          row = @users[id]&.last
          { "row" => row_number, "id" => id, "given" => row && name(row, "Given"), "family" => row && name(row, "Family"),
            "number" => row && row["identifier"].to_s.strip[0, 500],
            "gone" => left?(id) }
        end

        def name(row, part)
          preferred = row["preferred#{part}Name"].to_s.strip
          (preferred.empty? ? row["#{part.downcase}Name"].to_s.strip : preferred)[0, 500]
        end
      end
    end
  end
end

# frozen_string_literal: true

require "csv"
require "date"
require "zip"

module Roost
  module Exchange
    module OneRoster
      # Classes and their students as a package for other programs: OneRoster 1.2 CSV, all of it (bulk). What came in with
      # them goes out again (Details). What is not known, and the standard wants, is as plain as can be: a school year from
      # September to August, a course a class.
      class Writing
        SCHOOL = "school"
        SOURCE = "Amber Roost"
        # Of the standard, in its order; where it has more columns, they are optional and left out at the end.
        COLUMNS = {
          "orgs" => %w[sourcedId status dateLastModified name type identifier parentSourcedId],
          "academicSessions" => %w[sourcedId status dateLastModified title type startDate endDate parentSourcedId
                                   schoolYear],
          "courses" => %w[sourcedId status dateLastModified schoolYearSourcedId title courseCode grades orgSourcedId
                          subjects subjectCodes],
          "classes" => %w[sourcedId status dateLastModified title grades courseSourcedId classCode classType location
                          schoolSourcedId termSourcedIds subjects subjectCodes periods],
          "users" => %w[sourcedId status dateLastModified enabledUser username userIds givenName familyName middleName
                        identifier email sms phone agentSourcedIds grades password userMasterIdentifier
                        resourceSourcedIds preferredGivenName preferredMiddleName preferredFamilyName
                        primaryOrgSourcedId pronouns],
          "roles" => %w[sourcedId status dateLastModified userSourcedId roleType role beginDate endDate orgSourcedId
                        userProfileSourcedId],
          "enrollments" => %w[sourcedId status dateLastModified classSourcedId schoolSourcedId userSourcedId role primary
                              beginDate endDate]
        }.freeze
        ABSENT = %w[categories classResources courseResources demographics lineItemLearningObjectiveIds lineItems
                    lineItemScoreScales resources resultLearningObjectiveIds results resultScoreScales scoreScales userProfiles
                    userResources].freeze

        def initialize(classes, teacher, school, today)
          @classes = classes
          @teacher = teacher
          @school = school
          @today = today
        end

        def zip
          files = COLUMNS.to_h { |name, columns| [name, csv(columns, send(:"#{name.downcase}_rows"))] }
          Zip::OutputStream.write_buffer do |out|
            { "manifest" => csv(%w[propertyName value], manifest), **files }.each do |name, text|
              out.put_next_entry("#{name}.csv")
              out.write(text)
            end
          end.string
        end

        private

        def csv(columns, rows)
          lines = [columns, *rows.map { |row| cells(columns, row) }]
          CSV.generate { |csv| lines.each { |line| csv << line.map { |cell| CsvText.quoted(cell) } } }
        end

        def cells(columns, row) = row.is_a?(Hash) ? columns.map { |name| row[name] } : row

        def manifest
          files = (COLUMNS.keys + ABSENT).sort.map { |name| ["file.#{name}", COLUMNS.key?(name) ? "bulk" : "absent"] }
          [["manifest.version", "1.0"], ["oneroster.version", "1.2"], *files, ["source.systemName", SOURCE],
           %w[source.systemCode amber-roost]]
        end

        def orgs_rows = @classes.map { |sent| org(sent) }.uniq { |org| org["sourcedId"] }

        def org(sent) = sent.details.fetch("org") { { "sourcedId" => SCHOOL, "name" => @school, "type" => "school" } }

        def academicsessions_rows = @classes.flat_map { |sent| terms(sent) }.uniq { |term| term["sourcedId"] }

        def terms(sent)
          sent.details.fetch("terms") do
            year = starts(sent.row)
            [{ "sourcedId" => "year-#{year}", "title" => "#{year}/#{format("%02d", (year + 1) % 100)}", "type" => "schoolYear",
               "startDate" => "#{year}-09-01", "endDate" => "#{year + 1}-08-31", "schoolYear" => year + 1 }]
          end
        end

        # The year in which the school year of a class begins: as it says, else the present one.
        def starts(row) = row.year[/\b(?:19|20)\d\d\b/]&.to_i || (@today.month > 7 ? @today.year : @today.year - 1)

        def courses_rows = @classes.map { |sent| course(sent) }.uniq { |course| course["sourcedId"] }

        def course(sent)
          row = sent.row
          plain = { "sourcedId" => "course-#{row.sourced_id}"[0, Package::MOST_ID], "subjects" => row.subject,
                    "title" => row.subject.empty? ? row.name : row.subject }
          sent.details.fetch("course", plain)
              .merge("schoolYearSourcedId" => terms(sent).first["sourcedId"], "orgSourcedId" => org(sent)["sourcedId"])
        end

        def classes_rows
          @classes.map do |sent|
            { "classType" => "scheduled", **sent.details.fetch("class", {}), "sourcedId" => sent.row.sourced_id,
              "title" => sent.row.name, "subjects" => subjects(sent), "courseSourcedId" => course(sent)["sourcedId"],
              "schoolSourcedId" => org(sent)["sourcedId"],
              "termSourcedIds" => terms(sent).map { |term| term["sourcedId"] }.join(",") }
          end
        end

        # As they came in, unless the teacher has changed the subject since.
        def subjects(sent)
          said = sent.details.dig("class", "subjects").to_s
          said.split(",").map(&:strip).include?(sent.row.subject) ? said : sent.row.subject
        end

        def users_rows = @classes.flat_map { |sent| teachers(sent) + students(sent) }.uniq { |user| user["sourcedId"] }

        # Those the class came with, and whoever sends it out.
        def teachers(sent)
          given = sent.details.fetch("teachers", []).map { |said| { "username" => said["sourcedId"], **said } }
          given += [sender] if given.none? { |said| said["email"].to_s.casecmp?(@teacher.fetch(:email)) }
          given.map { |said| { **said, "enabledUser" => "true", "primaryOrgSourcedId" => org(sent)["sourcedId"] } }
        end

        def sender
          name, family = @teacher.fetch(:name).then { |name| [name, Core::StudentName.family(name)] }
          id = "teacher-#{@teacher.fetch(:id)}"
          { "sourcedId" => id, "username" => id, "givenName" => name.delete_suffix(family).strip, "familyName" => family,
            "email" => @teacher.fetch(:email) }
        end

        def students(sent)
          sent.students.map do |student|
            said = sent.people.fetch(student.id, {})
            { "username" => student.sourced_id, **said, **named(student, said), "sourcedId" => student.sourced_id,
              "identifier" => student.number, "enabledUser" => "true", "primaryOrgSourcedId" => org(sent)["sourcedId"] }
          end
        end

        # As it came in, unless the teacher has changed the name since.
        def named(student, said)
          names = said.slice(*Details::NAMES)
          known = %w[given family].map { |part| names.fetch("preferred#{part.capitalize}Name", names["#{part}Name"].to_s) }
          return names if known.join(" ").strip == student.name

          { "givenName" => student.given, "familyName" => student.family, "preferredGivenName" => nil,
            "preferredFamilyName" => nil }
        end

        # @return [Array<Array(Hash, String)>] users of a class, and their roles
        def roles(sent) = teachers(sent).map { |user| [user, "teacher"] } + students(sent).map { |user| [user, "student"] }

        def roles_rows
          @classes.flat_map { |sent| roles(sent) }.uniq { |user, _| user["sourcedId"] }.map do |user, role|
            { "sourcedId" => "role-#{user["sourcedId"]}"[0, Package::MOST_ID], "userSourcedId" => user["sourcedId"],
              "roleType" => "primary", "role" => role, "orgSourcedId" => user["primaryOrgSourcedId"] }
          end
        end

        def enrollments_rows
          @classes.flat_map do |sent|
            roles(sent).each_with_index.map do |(user, role), place|
              { "sourcedId" => "#{sent.row.sourced_id}-#{user["sourcedId"]}"[0, Package::MOST_ID],
                "classSourcedId" => sent.row.sourced_id, "schoolSourcedId" => org(sent)["sourcedId"],
                "userSourcedId" => user["sourcedId"], "role" => role, "primary" => place.zero? ? "true" : "false" }
            end
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

require "csv"
require "date"
require "zip"

module Roost
  module Exchange
    module OneRoster
      # Classes and their students as a package for other programs: OneRoster 1.2 CSV, all of it (bulk). What we don't
      # keep, and the standard wants, is as plain as can be: a school year from September to August, a course a class.
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
          @teacher = { id: "teacher-#{teacher.fetch(:id)}", name: teacher.fetch(:name), email: teacher.fetch(:email) }
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

        def students = @classes.flat_map(&:last).uniq(&:id)

        def orgs_rows = [{ "sourcedId" => SCHOOL, "name" => @school, "type" => "school" }]

        def academicsessions_rows
          @classes.map { |row, _| starts(row) }.uniq.map do |year|
            { "sourcedId" => term(year), "title" => "#{year}/#{(year + 1) % 100}", "type" => "schoolYear",
              "startDate" => "#{year}-09-01", "endDate" => "#{year + 1}-08-31", "schoolYear" => year + 1 }
          end
        end

        # The year in which the school year of a class begins: as it says, else the present one.
        def starts(row) = row.year[/\b(?:19|20)\d\d\b/]&.to_i || (@today.month > 7 ? @today.year : @today.year - 1)

        def term(year) = "year-#{year}"

        def course(row) = "course-#{row.sourced_id}"[0, Package::MOST_ID]

        def courses_rows
          @classes.map do |row, _|
            { "sourcedId" => course(row), "schoolYearSourcedId" => term(starts(row)), "orgSourcedId" => SCHOOL,
              "title" => row.subject.empty? ? row.name : row.subject, "subjects" => row.subject }
          end
        end

        def classes_rows
          @classes.map do |row, _|
            { "sourcedId" => row.sourced_id, "title" => row.name, "courseSourcedId" => course(row), "classType" => "scheduled",
              "schoolSourcedId" => SCHOOL, "termSourcedIds" => term(starts(row)), "subjects" => row.subject }
          end
        end

        def users_rows
          family = Core::StudentName.family(@teacher[:name])
          [user(@teacher[:id], @teacher[:name].delete_suffix(family).strip, family).merge("email" => @teacher[:email]),
           *students.map do |student|
             user(student.sourced_id, student.given, student.family).merge("identifier" => student.number)
           end]
        end

        def user(id, given, family)
          { "sourcedId" => id, "enabledUser" => "true", "username" => id, "givenName" => given, "familyName" => family,
            "primaryOrgSourcedId" => SCHOOL }
        end

        def roles_rows
          [[@teacher[:id], "teacher"], *students.map { |student| [student.sourced_id, "student"] }].map do |id, role|
            { "sourcedId" => "role-#{id}"[0, Package::MOST_ID], "userSourcedId" => id, "roleType" => "primary", "role" => role,
              "orgSourcedId" => SCHOOL }
          end
        end

        def enrollments_rows
          @classes.flat_map do |row, all|
            [[@teacher[:id], "teacher"], *all.map { |student| [student.sourced_id, "student"] }].map do |id, role|
              { "sourcedId" => "#{row.sourced_id}-#{id}"[0, Package::MOST_ID], "classSourcedId" => row.sourced_id,
                "schoolSourcedId" => SCHOOL, "userSourcedId" => id, "role" => role,
                "primary" => role == "teacher" ? "true" : "false" }
            end
          end
        end
      end
    end
  end
end

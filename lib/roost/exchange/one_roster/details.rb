# frozen_string_literal: true

module Roost
  module Exchange
    module OneRoster
      # What a package says of a class and of people that this program does not use itself, and gives back when classes
      # go out again. Passwords, telephone numbers and students' e-mail addresses are left alone. Loads nothing else of
      # the program.
      class Details
        CLASS = %w[grades classCode classType location subjects subjectCodes periods].freeze
        COURSE = %w[sourcedId title courseCode grades subjects subjectCodes].freeze
        TERM = %w[sourcedId title type startDate endDate schoolYear].freeze
        ORG = %w[sourcedId name type identifier].freeze
        USER = %w[username userIds middleName grades userMasterIdentifier preferredMiddleName pronouns].freeze
        NAMES = %w[givenName familyName preferredGivenName preferredFamilyName].freeze
        TEACHER = (%w[sourcedId email identifier] + USER + NAMES).freeze
        MOST = 20 # terms, and teachers
        MOST_TEXT = 500 # characters of a cell

        # @param package [Package]
        def initialize(package)
          @package = package
        end

        # @param row [Hash, nil] of classes.csv
        # @param teachers [Array<Hash>] rows of users.csv
        # @return [Hash] "class", "course", "org": Hash each; "terms", "teachers": Array of Hash; what isn't told is left out
        def of_class(row, teachers)
          row ||= {}
          { "class" => told(row, CLASS), "course" => told(found("courses", row["courseSourcedId"]), COURSE),
            "org" => told(found("orgs", row["schoolSourcedId"]), ORG), "terms" => terms(row),
            "teachers" => teachers.first(MOST).map { |each| told(each, TEACHER) } }.reject { |_, said| said.empty? }
        end

        # @param row [Hash, nil] of users.csv
        # @return [Hash]
        def of_person(row) = told(row || {}, USER + NAMES)

        # @param name [String] of a file
        # @return [Hash] its row of that id, or an empty one
        def found(name, id)
          @found ||= {}
          rows = @found[name] ||= @package.rows(name).to_h { |_, row| [row["sourcedId"].to_s.strip, row] }
          rows.fetch(id.to_s.strip, {})
        end

        # @return [Array<Hash>] rows of academicSessions.csv
        def sessions(row) = row["termSourcedIds"].to_s.split(",").first(MOST).map { |id| found("academicSessions", id) }

        private

        def terms(row) = sessions(row).map { |term| told(term, TERM) }.reject(&:empty?)

        def told(row, columns)
          row.slice(*columns).transform_values { |cell| cell.to_s.gsub(/[[:cntrl:]]/, " ").strip[0, MOST_TEXT] }
             .reject { |_, cell| cell.empty? }
        end
      end
    end
  end
end

# frozen_string_literal: true

require "date"
require "json"

module Roost
  module Exchange
    # Classes and their students as other programs of a school exchange them: OneRoster CSV (1EdTech). A package from
    # outside is read in a process of its own (one_roster/package.rb).
    module OneRoster
      MOST_BYTES = 10 * 1024 * 1024
      SLOW = "is too much to be read. Export fewer classes."
      # Of the reader: sixty thousand rows take some seconds.
      LIMITS = { seconds: 30 }.freeze

      # What a package has of a class.
      # title::    nil where the package refers to a class that it does not hold
      # gone::     whether it says that the class is no more
      # students:: how many; teachers:: their e-mail addresses
      Group = Struct.new(:id, :title, :subject, :year, :gone, :students, :teachers, keyword_init: true)

      # bulk::    whether it tells everything, and not what has changed since
      # groups::  Array of Group; people:: how many users it tells of
      # reasons:: why rows can't be used, the first of them; refused:: how many that is
      Overview = Struct.new(:bulk, :groups, :people, :reasons, :refused, keyword_init: true)

      # given, family, number:: nil where the package refers to somebody whom it does not hold
      # gone::         whether it says that they are no more
      # begins::       ISO 8601, of who isn't in the class yet
      # details::      Hash, as in Details#of_person
      Person = Struct.new(:row, :id, :given, :family, :number, :gone, :begins, :details, keyword_init: true)

      # students:: Array of Person; coming:: Array of Person who begin later; leaving:: ids of those who are said to leave
      # details::  Hash, as in Details#of_class; former:: ids of teachers who are said to leave
      Told = Struct.new(:group, :students, :coming, :leaving, :details, :former, keyword_init: true)

      # told::   Array of Told
      # people:: Array of Person, all it tells of, where it tells what has changed
      Chosen = Struct.new(:bulk, :told, :people, keyword_init: true)

      # @param path [String] of a file from outside
      # @return [Core::Reading] of Overview; refused in words that go on after the file's name
      def self.overview(path)
        package("roster", path).map do |said|
          groups = said["classes"].map { |each| group(each, students: each["students"]) }
          Overview.new(bulk: said["bulk"], groups: groups, people: said["people"], reasons: said["reasons"],
                       refused: said["refused"]).freeze
        end
      end

      # @param ids [Array<String>] of groups
      # @return [Core::Reading] of Chosen
      def self.chosen(path, ids)
        package("classes", path, *ids).map do |said|
          told = said["classes"].map do |each|
            Told.new(group: group(each, students: each["students"].length), students: people(each["students"]),
                     coming: people(each["coming"]), leaving: each["leaving"], details: each["details"],
                     former: each["former"]).freeze
          end
          Chosen.new(bulk: said["bulk"], told: told, people: people(said["people"])).freeze
        end
      end

      # A class that goes out. row:: Store::Classes::Row; students:: Array of Core::Student; details:: Hash, as it came in;
      # people:: Hash of ids of students to theirs
      Sent = Struct.new(:row, :students, :details, :people, keyword_init: true)

      # @param classes [Array<Sent>]
      # @param teacher [Hash] :id, :name, :email
      # @param school [String] its name
      # @return [String] bytes of a zip: OneRoster 1.2, everything there is of these classes (bulk)
      def self.zip(classes, teacher:, school:) = Writing.new(classes, teacher, school, Date.today).zip

      def self.package(task, path, *ids)
        return Core::Reading.refused("is larger than 10 MB. Export fewer classes.") if File.size(path) > MOST_BYTES

        done = Confined.read(task, path, Date.today.iso8601, *ids, **LIMITS)
        return Core::Reading.refused(done.refusal || SLOW) unless done.success

        Core::Reading.ok(JSON.parse(done.output.force_encoding(Encoding::UTF_8)))
      rescue JSON::ParserError # cut off
        Core::Reading.refused(SLOW)
      end

      def self.group(said, students:)
        Group.new(id: said["id"], title: said["title"], subject: said["subject"].to_s, year: said["year"].to_s,
                  gone: said["gone"], students: students, teachers: said["teachers"].to_a).freeze
      end

      def self.people(said) = said.map { |each| Person.new(**each.transform_keys(&:to_sym)).freeze }
      private_class_method :package, :group, :people
    end
  end
end

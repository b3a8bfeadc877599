# frozen_string_literal: true

module Roost
  module Core
    # What a student on a class list is called, and what of that others see.
    module StudentName
      LIMIT = 80
      SHOWN_LIMIT = SeatName::LIMIT

      NAMELESS = "A student needs a name."
      # Words that belong to the family name after them, and what may follow it.
      PARTICLES = %w[van von vom der den de del della di da das do dos du la le al el bin ibn ben ter ten zu zum zur af av].freeze
      FAMILY = /\s((?:(?:#{PARTICLES.join("|")})\s+)*\S+(?:\s+(?:Jr|Sr|II|III|IV)\.?)?)\z/

      # @param raw anything; "Last, First" is turned round
      # @return [Reading] of Hash: :name, and :family where that is said
      def self.read(raw)
        Text.read(raw, limit: LIMIT, what: "The name", lines: false).and_then do |text|
          last, first, *more = text.split(",").map(&:strip)
          next of_parts(first, [last, *more].join(" ")) unless first.to_s.empty?

          last.to_s.match?(/[[:alpha:]]/) ? Reading.ok({ name: last }) : Reading.refused(NAMELESS)
        end
      end

      # @param given [String] first and middle names
      # @param family [String] empty of somebody with a single name
      # @return [Reading] of Hash: :name and :family, as they were entered
      def self.of_parts(given, family)
        parts = [given, family].map { |part| Text.read(part, limit: LIMIT, what: "The name", lines: false) }
        parts.first.and_then { parts.last }.and_then do
          name = parts.map(&:value).reject(&:empty?).join(" ")
          next Reading.refused(NAMELESS) unless name.match?(/[[:alpha:]]/)
          next Reading.refused("The name is longer than #{LIMIT} characters.") if name.length > LIMIT

          Reading.ok({ name: name, family: parts.first.value.empty? ? "" : parts.last.value })
        end
      end

      # What is likely to be the family name, of a name in one piece: the last word with what belongs to it.
      # @return [String] empty of a single name
      def self.family(name) = name[FAMILY, 1].to_s

      # The shortest name that is nobody else's: the first, with as many letters of the last as it
      # takes, else the whole name, else that with a number.
      # @param taken [Enumerable<String>]
      # @return [String]
      def self.shown(name, taken)
        low = taken.map(&:downcase)
        first, *, last = name.split
        tries = [first, *(1..last.to_s.length).map { |letters| "#{first} #{last[0, letters]}" }, name]
                .map { |each| each[0, SHOWN_LIMIT].strip }
        tries.find { |each| !low.include?(each.downcase) } || numbered(name[0, SHOWN_LIMIT - 4].strip, low)
      end

      # What each is called in a list: as shown, and by the whole name where two are shown alike.
      # @param students [Array<Student>]
      # @return [Array<Array(Student, String)>] in the order of what they are called
      def self.told_apart(students)
        often = students.map { |student| student.shown_name.downcase }.tally
        students.map { |student| [student, often[student.shown_name.downcase] > 1 ? student.name : student.shown_name] }
                .sort_by { |_student, called| called.downcase }
      end

      # A list in which several may have the same name: these are told apart by number, group or what others see, whichever
      # comes first that is one's own.
      # @param students [Array<Student>]
      # @return [Array<Student>]
      def self.distinguished(students)
        same = students.group_by { |student| student.name.downcase }.values.reject { |each| each.length == 1 }
        besides = same.each_with_object({}) { |each, all| each.each { |student| all[student.id] = besides(student, each) } }
        students.map { |each| besides.key?(each.id) ? Student.new(**each.to_h, besides: besides[each.id]).freeze : each }
      end

      # @return [String] the last resort is what others see, which is different within a class
      def self.besides(student, same)
        %i[number group].each do |mark|
          own = student[mark].to_s
          return own if own != "" && same.one? { |each| each[mark] == own }
        end
        student.shown_name
      end
      private_class_method :besides

      def self.numbered(name, low)
        (2..).lazy.map { |number| "#{name} #{number}" }.find { |each| !low.include?(each.downcase) }
      end
      private_class_method :numbered
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # Points for a column of a gradebook, pasted from a spreadsheet: a line each student, with name or number and the points, or
      # the points alone in the order of the class.
      module Pasted
        LIMIT = 20_000 # characters
        MOST = 500 # lines
        # What may stand between the columns of a line, by what spreadsheets write first.
        APART = ["\t", ";", / {2,}/, ","].freeze
        NOBODY = "nobody in this class is called that"
        SEVERAL = "several in this class are called that; use the student number"
        NOTHING = "there are no points on this line"
        AGAIN = "this student stands further up already"
        TOO_MANY = "At most #{MOST} lines can be pasted at once.".freeze

        # typed:: Hash of student id to what stood beside them; left:: Array of [line as pasted, why it was not used]
        Found = Struct.new(:typed, :left, keyword_init: true)

        # @param text [Object] as sent
        # @param students [Array<Student>] in the order of the class
        # @return [Reading] of Found
        def self.read(text, students)
          Text.read(text, limit: LIMIT, what: "What you pasted").and_then do |pasted|
            lines = pasted.lines.map(&:strip).reject(&:empty?)
            next Reading.refused(TOO_MANY) if lines.length > MOST

            Reading.ok(alone?(lines) ? in_order(lines, students) : named(lines, students))
          end
        end

        def self.alone?(lines)
          lines.any? && lines.all? { |line| line.match?(/\A[\d.,]+\z/) || line.casecmp?(ColumnForm::EXCUSED) }
        end

        def self.in_order(lines, students)
          left = lines.drop(students.length).map { |line| [line, NOBODY] }
          Found.new(typed: students.map(&:id).zip(lines).compact.to_h, left: left).freeze
        end

        def self.named(lines, students)
          index = index(students)
          lines.each_with_object(Found.new(typed: {}, left: [])) do |line, found|
            *names, points = line.split(APART.find { |sign| line.index(sign) } || "\t").map(&:strip).reject(&:empty?)
            # A heading has no points.
            next found.left << [line, NOTHING] if names.empty? || !points.match?(/\A[\d.,]+\z|\A#{ColumnForm::EXCUSED}\z/i)

            same = names.lazy.map { |name| index[key(name)] }.find(&:itself) || index[key(names.join(" "))]
            take(found, line, same, points)
          end.freeze
        end

        def self.take(found, line, same, points)
          why = if same.nil? then NOBODY
                elsif same.length > 1 then SEVERAL
                elsif found.typed.key?(same.first) then AGAIN
                end
          why ? found.left << [line, why] : found.typed[same.first] = points
        end

        # @return [Hash{String=>Array<Integer>}] what somebody may be called to who is
        def self.index(students)
          students.each_with_object({}) do |student, all|
            called = [student.number, student.name, student.shown_name, "#{student.family} #{student.given}"]
            called.map { |name| key(name) }.reject(&:empty?).uniq.each { |name| (all[name] ||= []) << student.id }
          end
        end

        # By which names are compared: "Marsh, Bo" is "marsh bo".
        def self.key(name) = name.to_s.downcase.delete(",").split.join(" ")
        private_class_method :alone?, :in_order, :named, :take, :index, :key
      end
    end
  end
end

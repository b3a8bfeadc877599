# frozen_string_literal: true

module Roost
  module Setup
    # The gradebook of a demo class: two columns of the teacher's own in a category, one student excused, and one mark put right.
    class DemoGrades
      COLUMNS = [{ "title" => "Oral, autumn", "possible" => "10", "days" => 40, "excused" => "Jude Farrow" },
                 { "title" => "Field sketch", "possible" => "8", "days" => 12, "excused" => "Sol Everard" }].freeze
      DAY = 86_400

      def initialize(account_id, class_id:)
        @account_id = account_id
        @class_id = class_id
      end

      def call
        rules = { "categories" => { "0" => { "name" => "Oral and sketching", "weight" => "1", "dropped" => "0" } },
                  "weight" => "2", "dropped" => "0", "by_column" => "0" }
        Operations::KeepGradeRules.new.call(@account_id, @class_id, rules)
        category = Store::Gradebooks.new.rules(@account_id, @class_id).categories.first.id
        keys = COLUMNS.each_with_index.map do |column, place|
          create({ **column, "category" => category.to_s, "points" => points(column, Random.new(place + 4)) })
        end
        put_right(keys.first, COLUMNS.first, category)
      end

      private

      def students = @students ||= Store::Students.new.of_class(@class_id)

      def create(column)
        Operations::KeepGradeColumn.new.create(@account_id, @class_id, { **column, "on_date" => day(column["days"]) }).value
      end

      # Most between half and all of what is possible.
      def points(column, chance)
        most = column["possible"].to_i * 2
        students.to_h do |student|
          excused = student.name == column["excused"]
          [student.id.to_s, excused ? "excused" : (chance.rand((most / 2)..most) / 2.0).to_s]
        end
      end

      def put_right(key, column, category)
        form = { **column, "category" => category.to_s, "on_date" => day(column["days"]),
                           "points" => { students.first.id.to_s => column["possible"] } }
        Operations::KeepGradeColumn.new.change(@account_id, @class_id, key, form)
      end

      # So many days ago, as a form has it.
      def day(days) = Operations::SchoolClock.here.local(Time.now - (days * DAY)).strftime("%Y-%m-%d")
    end
  end
end

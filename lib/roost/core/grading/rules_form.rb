# frozen_string_literal: true

module Roost
  module Core
    module Grading
      # Reads how a teacher wants the grades of a class to be put together.
      module RulesForm
        NAME_LIMIT = 40
        MOST = 12
        DROPS = (0..9)
        NO_DROP = "Leave out a whole number from 0 to 9."
        TWICE = "Two categories have the same name. Give each its own."
        TOO_MANY = "A gradebook has at most #{MOST} categories.".freeze

        # @param form [Hash] "of_all", "by_column", "weight" and "dropped" of what is in no category; "categories": Hash of any
        #   key to Hash of "id", "name", "weight", "dropped", without a name of one that goes
        # @return [Reading] of Gradebook::Rules; a new category has no id
        def self.read(form)
          rows = form["categories"].is_a?(Hash) ? form["categories"].values.grep(Hash) : []
          rows = rows.reject { |row| row["name"].to_s.strip.empty? }
          return Reading.refused(TOO_MANY) if rows.length > MOST

          read = rows.map { |row| category(row) }
          rest = category({ **form.slice("weight", "dropped"), "name" => "" })
          refused = [rest, *read].find { |each| !each.ok? }
          return refused if refused

          categories = read.map(&:value)
          names = categories.map { |each| each.name.downcase }
          return Reading.refused(TWICE) unless names.uniq.length == names.length

          Reading.ok(Gradebook::Rules.new(of_all: form["of_all"] == "1", by_column: form["by_column"] == "1", rest: rest.value,
                                          categories: categories.freeze).freeze)
        end

        def self.category(row)
          Text.read(row["name"], limit: NAME_LIMIT, what: "The name of a category", lines: false).and_then do |name|
            weight = NumberText.read(row["weight"])
            weight = weight.ok? ? weight.value || 1r : nil
            next Reading.refused(ColumnForm::NO_WEIGHT) unless weight && ColumnForm::WEIGHTS.cover?(weight)

            dropped = row["dropped"].to_s.strip
            next Reading.refused(NO_DROP) unless dropped.match?(/\A\d?\z/)

            Reading.ok(Gradebook::Category.new(id: row["id"].to_s[/\A\d{1,18}\z/]&.to_i, name: name, weight: weight.round(2),
                                               dropped: dropped.to_i).freeze)
          end
        end
        private_class_method :category
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Operations
    # Groups of a class for the next lesson, from evidence on chosen standards or subtopics (Core::Analysis::Grouping), and
    # keeping them as the groups of its students, from which a session can take its teams.
    class GroupClass
      GROUPS = (1..Core::Session::Team::MOST)
      NOT_A_GROUP = "A group is a number from 1 to #{GROUPS.max}.".freeze
      NAMED = "Group %d"

      # @param overview [WhoHasIt::Overview]
      # @param names [Array<String>] of it, on which groups are made
      # @param how [Hash] :way, :size and :seed of Core::Analysis::Grouping
      # @return [Array<Array<Core::Student>>]
      def propose(overview, names, **how)
        students = overview.students.to_h { |student| [student.id, student] }
        seen = overview.students.map { |student| seen(overview, student, names) }
        Core::Analysis::Grouping.of(seen, **how).map { |ids| students.values_at(*ids) }
      end

      # @param given [Hash{Integer=>String}] student to the number of their group, "" of none
      # @return [Core::Reading, nil] of what each was in before, as #restore takes it; nil unless she teaches the class
      def keep(account_id, class_id, given)
        return nil unless Store::Classes.new.find(account_id, class_id)

        fits = given.values.all? { |number| number.empty? || (number.match?(/\A\d{1,2}\z/) && GROUPS.cover?(number.to_i)) }
        return Core::Reading.refused(NOT_A_GROUP) unless fits

        put(class_id, given.transform_values { |number| number.empty? ? "" : format(NAMED, number.to_i) })
      end

      # @param groups [Hash{Integer=>String}] student to the name of their group, as #keep gave it
      # @return [Core::Reading, nil] of what each was in before; nil unless she teaches the class
      def restore(account_id, class_id, groups)
        return nil unless Store::Classes.new.find(account_id, class_id)

        limit = Core::ClassList::LIMITS[:group]
        put(class_id, groups.transform_values do |name|
          Core::Text.read(name, limit: limit, what: "A group", lines: false).value.to_s
        end)
      end

      private

      def put(class_id, groups)
        students = Store::Students.new
        students.transaction do
          before = students.of_class(class_id).to_h { |student| [student.id, student.group.to_s] }.slice(*groups.keys)
          before.each_key { |id| students.regroup(class_id, id, groups[id]) unless groups[id] == before[id] }
          Core::Reading.ok(before)
        end
      end

      def seen(overview, student, names)
        cells = names.to_h { |name| [name, overview.cell(student, name)] }.compact
        earned = cells.values.flat_map(&:earned).uniq { |each| [each.session_id, each.slide_id] }
        all = Core::Analysis::Mastery.cell(earned, line: overview.line) if earned.any?
        Core::Analysis::Grouping::Seen.new(id: student.id, shares: cells.transform_values(&:share), share: all&.share,
                                           has: all&.state == :has, known: !all.nil? && all.state != :too_little).freeze
      end
    end
  end
end

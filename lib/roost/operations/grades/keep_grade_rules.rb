# frozen_string_literal: true

module Roost
  module Operations
    # How the grades of a class are put together: categories with their weights, and how many of the lowest are left out.
    class KeepGradeRules < KeepGradebook
      # @param form [Hash] see Core::Grading::RulesForm
      # @return [Core::Reading, nil] of Core::Grading::Gradebook::Rules; nil unless she teaches the class
      def call(account_id, class_id, form)
        keep(account_id, class_id) do |books|
          Core::Grading::RulesForm.read(form).map do |rules|
            before = said(books.rules(account_id, class_id))
            books.change_rules(account_id, class_id, rules)
            after = said(books.rules(account_id, class_id))
            gone = before.keys.to_h { |name| [name, nil] }
            books.note(account_id, class_id, differences(before, gone.merge(after)), by: account_id)
            rules
          end
        end
      end

      private

      # By what each part is called.
      def said(rules)
        categories = rules.all.flat_map do |each|
          name = each.id ? "“#{each.name}”" : "everything else"
          [["weight of #{name}", each.weight], ["lowest left out of #{name}", each.dropped]]
        end
        { "by all questions asked" => rules.of_all, "each column counts alike" => rules.by_column, **categories.to_h }
      end
    end
  end
end

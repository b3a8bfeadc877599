# frozen_string_literal: true

module Roost
  module Operations
    # What a teacher changes in the gradebook of a class. Each change is recorded: who, when, and what there was before.
    class KeepGradebook
      # @return [String] a value as it is recorded
      def self.words(value)
        case value
        when nil then ""
        when true then "yes"
        when false then "no"
        when Rational then Core::NumberText.show(value)
        else value.to_s
        end
      end

      private

      # Holds the gradebook while it is changed.
      # @yieldparam books [Store::Gradebooks]
      # @yieldreturn [Core::Reading, nil]
      # @return [Core::Reading, nil] what was yielded; nil unless she teaches the class
      def keep(account_id, class_id)
        return nil unless Store::Classes.new.find(account_id, class_id)

        books = Store::Gradebooks.new
        books.transaction do
          books.hold(account_id, class_id)
          yield books
        end
      end

      # What is different, as it is recorded.
      # @param before [Hash]; after [Hash] of name to what there is
      # @return [Array<Hash>]
      def differences(before, after, **about)
        after.filter_map do |name, value|
          one, other = [before[name], value].map { |each| KeepGradebook.words(each) }
          { **about, about: name.to_s, before: one, after: other } unless one == other
        end
      end
    end
  end
end

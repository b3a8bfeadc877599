# frozen_string_literal: true

module Roost
  module Core
    # What changed between two documents, field by field. A field is a path of names and places to
    # a value; lists of another length are one field, and so is a question that is another one.
    #
    #     DocumentChanges.between({ "a" => { "b" => 1 } }, { "a" => { "b" => 2 } })  # => { ["a", "b"] => 2 }
    module DocumentChanges
      # Names that say how, not what.
      LEFT_OUT = %w[rev].freeze
      # A question of another kind, or another question, is no change of its fields.
      IDENTITY = %w[id kind].freeze

      # @return [Hash{Array=>Object}] path to the value it has now
      def self.between(before, after, path = [])
        return {} if before == after
        return { path => after } unless alike?(before, after)

        parts = after.is_a?(Hash) ? after.keys - LEFT_OUT : after.each_index
        parts.reduce({}) { |found, part| found.merge(between(before[part], after[part], path + [part])) }
      end

      # One document with changes that were made to what both come from.
      # @param changes [Hash{Array=>Object}] as #between gives them
      # @return [Hash, nil] nil where the document has changed in the same fields otherwise
      def self.merged(changes, base, theirs)
        other = between(base, theirs)
        clash = changes.any? do |path, value|
          other.any? { |theirs_path, their_value| overlap?(path, theirs_path) && [path, value] != [theirs_path, their_value] }
        end
        clash ? nil : changes.reduce(theirs) { |document, (path, value)| put(document, path, value) }
      end

      def self.alike?(before, after)
        case after
        when Hash then before.is_a?(Hash) && identity(before) == identity(after)
        when Array then before.is_a?(Array) && before.length == after.length && after.any?(Hash)
        else false
        end
      end

      def self.identity(document) = [document.values_at(*IDENTITY), document.keys.sort]

      def self.overlap?(one, other)
        one.zip(other).all? { |a, b| a == b || b.nil? } || other.zip(one).all? { |a, b| a == b || b.nil? }
      end

      def self.put(document, path, value)
        return value if path.empty?

        document.dup.tap { |copy| copy[path.first] = put(document[path.first], path.drop(1), value) }
      end
      private_class_method :alike?, :identity, :overlap?, :put
    end
  end
end

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

      # Changes of one, beside those of another to what both come from.
      # @param changes [Hash{Array=>Object}] as #between gives them
      # @return [Array(Hash, Hash)] those that stand, and those to fields that the other has changed otherwise
      def self.parted(changes, base, theirs)
        other = between(base, theirs)
        clash, stand = changes.partition do |path, value|
          other.any? { |theirs_path, their_value| overlap?(path, theirs_path) && [path, value] != [theirs_path, their_value] }
        end
        [stand.to_h, clash.to_h]
      end

      # @return [Hash] the document with these changes; those to what it does not have are left out
      def self.with(document, changes)
        changes.reduce(document) { |so_far, (path, value)| place?(so_far, path) ? put(so_far, path, value) : so_far }
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

      # Whether there is such a field.
      def self.place?(document, path)
        *above, last = path
        holder = above.reduce(document) { |part, name| part && part[name] }
        holder.is_a?(Array) ? last < holder.length : holder.is_a?(Hash) && holder.key?(last)
      end

      def self.put(document, path, value)
        return value if path.empty?

        document.dup.tap { |copy| copy[path.first] = put(document[path.first], path.drop(1), value) }
      end
      private_class_method :alike?, :identity, :overlap?, :place?, :put
    end
  end
end

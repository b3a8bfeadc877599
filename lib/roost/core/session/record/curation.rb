# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What a teacher has done with the single things a class gave on one slide, words or
      # cards, each of which its kind knows by a key: removed for all, let through, pinned,
      # put into a column.
      #
      # removed, approved, pinned:: keys in the order in which it was done
      # columns:: key to number of a column from 0
      # own:: what a kind keeps beside these
      Curation = Struct.new(:removed, :approved, :pinned, :columns, :own, keyword_init: true) do
        self::MOST = 2000
        self::KEY_LIMIT = 800 # a word of 40 characters may be many more once it is normalised
        # What is done to keys, and the list they come into or leave.
        self::LISTS = { "remove" => [:removed, true], "restore" => [:removed, false], "approve" => [:approved, true],
                        "hold" => [:approved, false], "pin" => [:pinned, true], "unpin" => [:pinned, false] }.freeze
        self::BLANK = new(removed: [].freeze, approved: [].freeze, pinned: [].freeze, columns: {}.freeze,
                          own: {}.freeze).freeze

        def self.from_document(document)
          new(removed: document.fetch("removed", []).freeze, approved: document.fetch("approved", []).freeze,
              pinned: document.fetch("pinned", []).freeze, columns: document.fetch("columns", {}).freeze,
              own: document.fetch("own", {}).freeze).freeze
        end

        # @param what [String] a key of LISTS, or "column"
        # @param keys [Array<String>]
        # @param column [Integer, nil] where to; nil is none
        # @return [Curation, nil] nil when that can't be done
        def after(what, keys, column = nil)
          return nil if keys.empty? || keys.length > self.class::MOST || keys.any? { |key| key.length > self.class::KEY_LIMIT }
          return with(columns: moved(keys, column)) if what == "column"

          list, into = self.class::LISTS[what]
          list && with(list => into ? self[list] | keys : self[list] - keys)
        end

        # @param changes [Hash{String=>Object}] of what the kind keeps; numbers, texts and truth
        # @return [Curation]
        def with_own(changes) = with(own: own.merge(changes))

        def removed?(key) = removed.include?(key)

        def to_document = to_h.transform_keys(&:to_s)

        private

        def moved(keys, column)
          left = columns.except(*keys)
          column ? left.merge(keys.to_h { |key| [key, column] }) : left
        end

        def with(**changes) = self.class.new(**to_h, **changes.transform_values(&:freeze)).freeze
      end
    end
  end
end

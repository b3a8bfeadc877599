# frozen_string_literal: true

module Roost
  module Store
    # Learning standards: a teacher's own list, and those that colleagues have opened to all
    # here.
    class Standards < Repository
      Row = Struct.new(:code, :words, :subject, :level, :parent, :mine, :for_all, keyword_init: true)

      MOST_FOUND = 20

      # Puts standards into a teacher's list; one with a code that is there takes its place.
      # @param standards [Array<Hash>] :code, :words, :subject, :level, :parent
      def keep(account_id, standards, for_all:)
        rows = standards.map { |standard| { account_id: account_id, for_all: for_all, **standard } }
        newer = %i[words subject level parent for_all].to_h { |name| [name, Sequel[:excluded][name]] }
        transaction do
          database[:standards].insert_conflict(target: %i[account_id code], update: newer).multi_insert(rows)
        end
      end

      # @return [Array<Row>] by code
      def all(account_id) = visible(account_id).order(:code).map { |row| read(row, account_id) }

      # @param query [String] a part of the code or of the words; a whole code finds that one only
      # @return [Array<Row>] at most MOST_FOUND
      def find(account_id, query)
        same = visible(account_id).where(Sequel.function(:lower, :code) => query.to_s.strip.downcase).order(:code).all
        return same.map { |row| read(row, account_id) } if same.any?

        matching = query.to_s.split.first(6).reduce(visible(account_id)) do |found, term|
          like = "%#{found.escape_like(term)}%"
          found.where(Sequel.|(Sequel[:code].ilike(like), Sequel[:words].ilike(like)))
        end
        matching.order(:code).limit(MOST_FOUND).map { |row| read(row, account_id) }
      end

      # What stands above each, up to the top; a list that goes round in a circle is cut.
      # @return [Hash{String=>Array<String>}] code to codes, the nearest first
      def above(account_id)
        parents = visible(account_id).exclude(parent: "").select_hash(:code, :parent)
        parents.to_h do |code, parent|
          all = []
          while parent && parent != code && !all.include?(parent)
            all << parent
            parent = parents[parent]
          end
          [code, all]
        end
      end

      # @return [Integer] how many were in the teacher's own list
      def remove_all(account_id) = database[:standards].where(account_id: account_id).delete

      private

      def visible(account_id)
        database[:standards].where(Sequel.|({ account_id: account_id }, :for_all))
      end

      def read(row, account_id)
        Row.new(**row.slice(:code, :words, :subject, :level, :parent, :for_all), mine: row[:account_id] == account_id).freeze
      end
    end
  end
end

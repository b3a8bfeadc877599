# frozen_string_literal: true

module Roost
  module Store
    # Searching by words: every word of a query is the beginning of a word to be found.
    module Words
      MOST_TERMS = 8

      # @param query [String] as typed
      # @yieldparam condition one word against the column `search`
      # @yieldreturn the condition a row has to meet for that word
      # @return [Sequel::Dataset]
      def self.all(dataset, query)
        query.to_s.scan(/[[:alnum:]]+/).first(MOST_TERMS).reduce(dataset) do |found, term|
          # A word that the index leaves out, such as "the", is everywhere.
          counts = Sequel.lit("numnode(to_tsquery('english', ?))", "#{term}:*")
          next found if dataset.db.get(counts).zero?

          found.where(yield(Sequel.lit("search @@ to_tsquery('english', ?)", "#{term}:*")))
        end
      end
    end
  end
end

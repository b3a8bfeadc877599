# frozen_string_literal: true

module Roost
  module Store
    # Searching by words: every word of a query is the beginning of a word to be found. A code, as
    # SCI.7.2, is found whole.
    module TextSearch
      MOST_TERMS = 8
      CODE = %r{(?=[[:alnum:]./-]*\d)[[:alnum:]]+(?:[./-][[:alnum:]]+)+}
      TERM = /#{CODE}|[[:alnum:]]+/

      # @param query [String] as typed
      # @yieldparam condition one word against the column `search`
      # @yieldparam term [String] that word
      # @yieldreturn the condition a row has to meet for that word
      # @return [Sequel::Dataset]
      def self.all(dataset, query)
        query.to_s.scan(TERM).first(MOST_TERMS).reduce(dataset) do |found, term|
          wanted = wanted(term)
          # A word that the index leaves out, such as "the", is everywhere.
          next found if dataset.db.get(Sequel.function(:numnode, wanted)).zero?

          found.where(yield(Sequel.lit("search @@ ?", wanted), term))
        end
      end

      def self.wanted(term)
        return Sequel.lit("phraseto_tsquery('english', ?)", term) if term.match?(/[^[:alnum:]]/)

        Sequel.lit("to_tsquery('english', ?)", "#{term}:*")
      end
      private_class_method :wanted
    end
  end
end

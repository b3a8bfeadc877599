# frozen_string_literal: true

module Roost
  module Web
    # What the pages that show the question bank share.
    module BankPages
      # How the questions that were found went, wherever they were asked.
      # @param found [Array<Store::Bank::Row>]
      # @return [Hash{String=>Core::Analysis::OverSessions}] by origin
      def asked_before(found) = Operations::OverSessions.new.call(account_id, found.map { |row| row.slide.prompt.origin }.uniq)

      # What a page with the bank on it needs: what was found, and the tags to choose from.
      def bank_page
        bank = Store::Bank.new
        { found: bank.find(account_id, query: params["q"], subtopic: params["subtopic"], standard: params["standard"]),
          subtopics: bank.tags(account_id, :subtopics), standards: bank.tags(account_id, :standards) }
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # What the pages that show the question bank share.
    module BankPages
      # What a page with the bank on it needs: what was found, and the tags to choose from.
      def bank_page
        bank = Store::Bank.new
        { found: bank.find(account_id, query: params["q"], subtopic: params["subtopic"], standard: params["standard"]),
          subtopics: bank.tags(account_id, :subtopics), standards: bank.tags(account_id, :standards) }
      end
    end
  end
end

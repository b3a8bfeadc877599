# frozen_string_literal: true

module Roost
  module Operations
    # The passes of a class as cards to be cut out, page by page since their codes take long: three hundred are fifteen seconds of
    # work.
    class ClassPasses
      TYPE = "application/pdf"
      A_PAGE = Exchange::PassCards::A_PAGE
      # Pages that are drawn in one go.
      AT_ONCE = 4

      # klass:: Store::Classes::Row; passes:: Array of [Core::Student, String]
      Subject = Struct.new(:klass, :passes, keyword_init: true)

      # @return [Subject, nil] nil unless she teaches the class, and somebody is in it
      def subject(account_id, class_id)
        passes = StudentPasses.new.of_class(account_id, class_id)
        return nil if passes.nil? || passes.empty?

        Subject.new(klass: Store::Classes.new.find(account_id, class_id), passes: passes).freeze
      end

      # @param subject [Subject]
      # @yieldparam done [Integer] pages; parts [Integer] of how many
      # @return [String, nil] nil when it could not be made
      def file(subject)
        pages = (subject.passes.length / A_PAGE.to_r).ceil
        address = Roost.settings.base_url
        yield 0, pages
        cards = subject.passes.each_slice(A_PAGE * AT_ONCE).reduce([]) do |so_far, some|
          made = Exchange::PassCards.cards(some, base_url: address) or return nil
          yield ((so_far + made).length / A_PAGE.to_r).ceil, pages
          so_far + made
        end
        Exchange::PassCards.pdf(cards, class_name: subject.klass.name, base_url: address)
      end
    end
  end
end

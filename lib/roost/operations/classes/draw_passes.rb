# frozen_string_literal: true

module Roost
  module Operations
    # Makes the passes of a class as cards to be cut out, in the background, page by page since their codes take long: three
    # hundred are fifteen seconds of work.
    class DrawPasses
      A_PAGE = Exchange::PassCards::A_PAGE
      # Pages that are drawn in one go.
      AT_ONCE = 4

      # Leaves it to the background.
      # @return [Boolean, nil] nil unless she teaches the class, and somebody is in it
      def start(account_id, class_id)
        passes = StudentPasses.new.of_class(account_id, class_id)
        return nil if passes.nil? || passes.empty?

        sheets.transaction do
          id = sheets.begin_one(account_id, class_id, pages: (passes.length / A_PAGE.to_r).ceil)
          Store::Background.new.later("draw_passes", id) if id
        end
        true
      end

      # @param id [Integer] of a sheet
      def call(id)
        sheet = sheets.find(id)
        return unless sheet&.drawing?

        pdf = pdf(sheet) or return give_up(id)

        File.open(sheets.path(id), "wb", 0o600) { |file| file.write(pdf) }
        sheets.update(id, state: "ready")
      end

      def give_up(id) = sheets.update(id, state: "failed")

      private

      def sheets = @sheets ||= Store::PassSheets.new

      # @return [String, nil] nil when it could not be made, or she teaches the class no more
      def pdf(sheet)
        passes = StudentPasses.new.of_class(sheet.account_id, sheet.class_id) or return nil
        address = Roost.settings.base_url
        cards = passes.each_slice(A_PAGE * AT_ONCE).reduce([]) do |so_far, some|
          made = Exchange::PassCards.cards(some, base_url: address) or return nil
          sheets.update(sheet.id, done: ((so_far + made).length / A_PAGE.to_r).ceil)
          so_far + made
        end
        name = Store::Classes.new.find(sheet.account_id, sheet.class_id)&.name
        name && Exchange::PassCards.pdf(cards, class_name: name, base_url: address)
      end
    end
  end
end

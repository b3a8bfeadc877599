# frozen_string_literal: true

module Roost
  module Operations
    # Draws the passes of a class as cards to be cut out, page by page, in the background: three hundred take fifteen seconds of
    # work.
    class DrawPasses
      A_PAGE = Exchange::PassCards::Pages::A_PAGE
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

        pages = pages(sheet)
        pdf = pages && Exchange::Raster.pdf(pages)
        return give_up(id) unless pdf

        File.open(sheets.path(id), "wb", 0o600) { |file| file.write(pdf) }
        sheets.update(id, state: "ready")
      end

      def give_up(id) = sheets.update(id, state: "failed")

      private

      def sheets = @sheets ||= Store::PassSheets.new

      # @return [Array<String>, nil] SVG; nil when one could not be drawn, or she teaches the class no more
      def pages(sheet)
        passes = StudentPasses.new.of_class(sheet.account_id, sheet.class_id)
        name = Store::Classes.new.find(sheet.account_id, sheet.class_id)&.name
        passes&.each_slice(A_PAGE * AT_ONCE)&.reduce([]) do |so_far, some|
          drawn = Exchange::PassCards.pages(some, class_name: name, base_url: Roost.settings.base_url) or return nil
          sheets.update(sheet.id, done: so_far.length + drawn.length)
          so_far + drawn
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Writing
        # How what a class gave to it is shown.
        class Display < Kinds::Display
          # Groups on a page, with one box and with several.
          ON_A_PAGE = 15
          ON_A_PAGE_EACH = 6

          of_prompt :boxes

          def pages(tally, _way) = tally.parts.map { |part| pages_of(part.groups.length, on_a_page) }.max

          def page(tally, _way, number)
            parts = tally.parts.map do |part|
              Prompt::Part.new(**part.to_h, groups: part.groups.drop(number * on_a_page).first(on_a_page)).freeze
            end
            Prompt::Tally.new(answered: tally.answered, parts: parts).freeze
          end

          # The groups its text is in, one a box.
          def tally_parts(value, tally)
            texts = boxes.length > 1 ? value["boxes"] : [value["text"]]
            tally.parts.zip(texts).each_with_index.filter_map do |(part, text), place|
              group = text.to_s.empty? ? nil : part.groups.find { |each| each.texts.include?(text) }
              group && Display.part_of(place, group)
            end
          end

          # @param place [Integer] of the box
          # @param group [Tallies::Grouping::Group]
          def self.part_of(place, group) = "box#{place}-#{Text.tag(group.lead)}"

          def plain(value) = value["text"]

          def short(value) = boxes.length > 1 ? value["boxes"].reject(&:empty?).join(" · ") : value["text"]

          private

          def on_a_page = boxes.length > 1 ? ON_A_PAGE_EACH : ON_A_PAGE
        end
      end
    end
  end
end

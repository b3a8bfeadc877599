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

          # Of a page, in lines of type that can be read from the back, and letters of a line that goes over half of it.
          LINES = 26
          LETTERS = 50
          # A text that is longer takes half of the page's width, else a quarter.
          LONG = 120
          SHOWN = 400 # letters of a text, about

          def pages(tally, _way) = [tally.parts.map { |part| sliced(part).length }.max, 1].max

          def page(tally, _way, number)
            parts = tally.parts.map do |part|
              Prompt::Part.new(**part.to_h, groups: sliced(part)[number] || []).freeze
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

          def sliced(part)
            most, room = boxes.length > 1 ? [ON_A_PAGE_EACH, LINES / 2] : [ON_A_PAGE, LINES]
            pages_by_room(part.groups, most: most, room: room) { |group| lines(group.lead.length) }
          end

          # Short texts stand four in a row, so that each takes half as much.
          def lines(length)
            length > LONG ? 1 + ([length, SHOWN].min / LETTERS.to_f).ceil : (1 + (length * 2 / LETTERS.to_f).ceil) / 2.0
          end
        end
      end
    end
  end
end

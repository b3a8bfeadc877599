# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # Places up to N spots on the slide's picture. The key is regions, each of which wants
        # some of the spots. A value is {"spots" => [{"x", "y", "label"}]}: fractions of the
        # picture's width and height, so that any screen marks alike; the label only where asked.
        class Prompt < Core::Prompt
          COLOURS = Drawing::Sheet::COLOURS
          MOST_BYTES = 8000
          PLACES = 4 # decimals of a coordinate

          def self.label = "Spots"
          def self.place = 6
          def self.purpose = "Place spots on the picture"
          def self.charted? = true
          def self.keyable? = true
          def self.on_the_spot = {}

          def self.blank
            { "most" => 1, "mark" => "dot", "colour" => "rust", "labels" => false, "regions" => [] }
          end

          # @return [Array<Region>]
          attr_reader :regions

          def instruction
            what = most == 1 ? "Place a spot on the picture" : "Place up to #{most} spots on the picture"
            if labels?
              "#{what} and name #{most == 1 ? "it" : "them"}"
            else
              what
            end
          end

          def problems
            short = keyed? && wanted > most
            [("the regions want #{wanted} spots, but only #{most} can be placed" if short)].compact + super
          end

          def keyed? = regions.any?

          # Any answer can be marked by any regions.
          def shape = most

          def uses_picture? = true

          def needs_picture? = true

          def most = settings["most"]

          def mark_kind = settings["mark"]

          # @return [String] as "#rrggbb"
          def colour = COLOURS.fetch(settings["colour"])

          def labels? = settings["labels"]

          # How many spots the regions want in all.
          def wanted = regions.sum(&:wanted)

          def searchable = super + regions.map(&:name)

          def outside(value) = value["spots"].count { |spot| regions.none? { |region| region.cover?(spot["x"], spot["y"]) } }

          private

          def prepare
            @regions = settings["regions"].filter_map { |region| Region.read(region) }.freeze
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # Our own drawings of eight plants of the marsh, the marks of teams, as SVG text (Core::Session::Team::NAMES). Told
    # apart by their form alone.
    module Plants
      PARTS = [
        # Reed: a bent plume over a stem with two leaves.
        "M11 22 V8 M11 16 C7 14 6 12 5 9 M11 13 C15 12 17 10 18 7 M11 8 C11 4 14 3 17 3 C16 6 14 8 11 8 Z",
        # Sedge: blades out of one root.
        "M12 22 C12 14 12 8 12 2 M12 22 C10 14 7 9 3 6 M12 22 C14 14 17 9 21 6 M12 22 C9 18 6 16 2 15 M12 22 C15 18 18 16 22 15",
        # Willow: a twig with narrow leaves.
        "M6 22 C10 16 14 9 19 2 M9 17 C5 17 3 15 2 12 C6 12 8 14 9 17 Z M12 12 C17 14 20 13 22 10 C18 8 14 9 12 12 Z " \
        "M14 9 C11 8 9 6 9 3 C13 4 14 6 14 9 Z",
        # Iris: one petal up, two down.
        "M12 22 V14 M12 14 C8 10 9 5 12 2 C15 5 16 10 12 14 Z M12 14 C8 12 4 13 3 17 C7 18 10 17 12 14 Z " \
        "M12 14 C16 12 20 13 21 17 C17 18 14 17 12 14 Z",
        # Mint: leaves in pairs.
        "M12 22 V3 M12 18 C8 18 5 16 4 13 C8 12 11 14 12 18 Z M12 18 C16 18 19 16 20 13 C16 12 13 14 12 18 Z " \
        "M12 10 C9 10 7 8 6 5 C9 5 11 7 12 10 Z M12 10 C15 10 17 8 18 5 C15 5 13 7 12 10 Z",
        # Thistle: a round head with rays.
        "M12 22 V15 M7 11 A5 5 0 0 0 17 11 Z M12 9 V2 M9 9 L7 3 M15 9 L17 3 M7 10 L3 6 M17 10 L21 6",
        # Clover: three leaflets.
        "M12 22 V13 M8 8.5 A3.8 3.8 0 1 1 7.9 8.5 M16 8.5 A3.8 3.8 0 1 1 15.9 8.5 M12 2 A3.8 3.8 0 1 1 11.9 2",
        # Lily: a floating leaf with its notch.
        "M12 12 L20 7 A9.5 9.5 0 1 0 21.4 13 Z"
      ].freeze

      # @param mark [Integer] Team#mark
      # @return [String] SVG
      def self.svg(mark)
        %(<svg class="plant" viewBox="0 0 24 24" aria-hidden="true"><path d="#{PARTS.fetch(mark % PARTS.length)}"/></svg>)
      end
    end
  end
end

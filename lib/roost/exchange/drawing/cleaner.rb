# frozen_string_literal: true

require "nokogiri"

module Roost
  module Exchange
    module Drawing
      # Cleans an SVG in a process of its own (bin/read): takes out whatever could run, load or
      # point elsewhere. Loads nothing else of the program. What is none is Unreadable.
      module Cleaner
        ELEMENTS = %w[svg g defs title desc path rect circle ellipse line polyline polygon text tspan
                      linearGradient radialGradient stop clipPath mask pattern use symbol].freeze
        FORBIDDEN = /\Aon|\A(?:style|src)\z/i
        MOST_ELEMENTS = 20_000
        NONE = "is not an SVG drawing."
        SIZELESS = "does not say how large it is. Export it with a view box."
        DAMAGED = "is damaged or not a picture. Export it again and retry."
        CROWDED = "has more than 20 000 parts. Make it simpler, or export it as PNG."

        # @return [String] width, height and the drawing, each in a line of its own
        def self.clean(bytes)
          root = Nokogiri::XML(bytes) { |config| config.strict.nonet }.root
          refuse(NONE) unless root&.name == "svg"
          size = size(root)
          refuse(SIZELESS) unless size
          refuse(CROWDED) if root.xpath("count(//*)") > MOST_ELEMENTS

          root.traverse { |node| keep(node) }
          [*size, root.to_xml].join("\n")
        rescue Nokogiri::XML::SyntaxError
          refuse(DAMAGED)
        end

        def self.keep(node)
          return node.remove if !node.element? && !node.text?
          return unless node.element?
          return node.remove unless ELEMENTS.include?(node.name)

          node.attribute_nodes.each { |attribute| attribute.remove if unsafe?(attribute) }
        end

        def self.unsafe?(attribute)
          value = attribute.value
          return true if attribute.node_name.match?(FORBIDDEN)
          return !value.start_with?("#") if attribute.node_name == "href"

          value.match?(/javascript:|data:/i) || value.match?(/url\((?!\s*['"]?#)/i)
        end

        def self.size(root)
          box = root["viewBox"].to_s.split(/[\s,]+/).map(&:to_f)
          width, height = box.length == 4 ? box.last(2) : [root["width"].to_f, root["height"].to_f]
          [width.round, height.round] if width >= 1 && height >= 1 && width < 100_000 && height < 100_000
        end

        def self.refuse(reason) = raise(Unreadable, reason)
        private_class_method :keep, :unsafe?, :size, :refuse
      end
    end
  end
end

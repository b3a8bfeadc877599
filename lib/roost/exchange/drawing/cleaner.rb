# frozen_string_literal: true

require "json"
require "nokogiri"
require "sanitize"
require_relative "expansion"
require_relative "styles"

module Roost
  module Exchange
    module Drawing
      # Cleans an SVG in a process of its own (bin/read): takes out whatever could run, load or
      # point elsewhere, and says what it was where that can be missed. Styles become attributes;
      # pictures of pixels inside it are handed out to be encoded anew. Loads nothing else of the
      # program. What is none is Unreadable.
      class Cleaner
        ELEMENTS = %w[svg g defs title desc path rect circle ellipse line polyline polygon text tspan
                      linearGradient radialGradient stop clipPath mask pattern use symbol image].freeze
        # What an element may say of itself, beside how it looks (Styles). Source: SVG 2, attribute index.
        ATTRIBUTES = %w[id d x y x1 y1 x2 y2 cx cy r rx ry fx fy fr dx dy rotate points width height viewBox preserveAspectRatio
                        transform pathLength offset gradientUnits gradientTransform spreadMethod patternUnits
                        patternContentUnits patternTransform clipPathUnits maskUnits maskContentUnits href textLength
                        lengthAdjust version role aria-label aria-labelledby aria-hidden lang space].freeze
        ALLOWED = { elements: ELEMENTS.map(&:downcase), remove_contents: true,
                    attributes: { all: (ATTRIBUTES + Styles::PROPERTIES).map(&:downcase) } }.freeze
        MOST_ELEMENTS = 20_000
        # As it is shown, with what is used several times.
        MOST_DRAWN = 50_000
        NONE = "is not an SVG drawing."
        SIZELESS = "does not say how large it is. Export it with a view box."
        DAMAGED = "is damaged or not a picture. Export it again and retry."
        CROWDED = "has more than 20 000 parts. Make it simpler, or export it as PNG."
        # What is missed when it is gone, by the name of its element.
        MISSED = { "script" => "scripts", "foreignObject" => "text laid out by a web page", "filter" => "shadows and blurs",
                   "animate" => "movement", "animateTransform" => "movement", "animateMotion" => "movement", "set" => "movement",
                   "textPath" => "text on a curve", "marker" => "arrowheads", "video" => "videos", "audio" => "sounds" }.freeze
        LINKED = "pictures that are not in the file"
        INSIDE = %r{\Adata:image/(?:png|jpeg|jpg|webp|gif);base64,(?<bytes>[A-Za-z0-9+/=\s]+)\z}
        MOST_INSIDE = 12
        # Stands for the address of a picture that is encoded anew.
        PLACE = "roost-picture-"

        # @return [String] a line of JSON ("width", "height", "lost", "place", "pictures" as Base64), then the drawing
        def self.clean(bytes) = new.clean(bytes)

        def initialize
          @lost = []
          @pictures = []
        end

        def clean(bytes)
          root = Nokogiri::XML(bytes) { |config| config.strict.nonet }.root
          refuse(NONE) unless root&.name == "svg"
          width, height = size(root)
          refuse(SIZELESS) unless width
          refuse(CROWDED) if root.xpath("count(//*)") > MOST_ELEMENTS

          unwrap(root)
          styles = Styles.new(root.xpath("//*[local-name()='style']").map(&:text))
          root.traverse { |node| keep(node, styles) }
          refuse(CROWDED) if Expansion.of(root, MOST_DRAWN) > MOST_DRAWN
          Sanitize.node!(root, ALLOWED)
          "#{JSON.generate(width: width, height: height, lost: @lost.uniq, place: PLACE, pictures: @pictures)}\n#{root.to_xml}"
        rescue Nokogiri::XML::SyntaxError
          refuse(DAMAGED)
        end

        private

        # Links become groups, and of what is there to be chosen from, what a browser would show: the first that needs nothing
        # which is taken out, and no language where one needs none.
        def unwrap(root)
          root.xpath("//*[local-name()='a']").each { |link| link.name = "g" }
          root.xpath("//*[local-name()='switch']").each do |switch|
            shown = switch.elements.select { |each| ELEMENTS.include?(each.name) || each.name == "switch" }
            chosen = shown.find { |each| each["systemLanguage"].to_s.empty? } || shown.first
            switch.elements.each { |each| each.remove unless each == chosen } if chosen
            switch.name = "g"
          end
        end

        def keep(node, styles)
          return node.remove if !node.element? && !node.text?
          return unless node.element?
          return lose(node) unless ELEMENTS.include?(node.name)

          styles.resolve(node)
          node.name == "image" ? keep_picture(node) : clean_attributes(node)
        end

        def lose(node)
          @lost << MISSED[node.name] if MISSED.key?(node.name)
          node.remove
        end

        def keep_picture(node)
          inside = (node["href"] || node.attribute_with_ns("href", "http://www.w3.org/1999/xlink")&.value).to_s.match(INSIDE)
          unless inside && @pictures.length < MOST_INSIDE
            @lost << LINKED
            return node.remove
          end

          @pictures << inside[:bytes].delete("\s\n\r\t")
          node.attribute_nodes.each { |attribute| attribute.remove if attribute.node_name == "href" || elsewhere?(attribute) }
          node["href"] = "#{PLACE}#{@pictures.length - 1}"
        end

        def clean_attributes(node)
          node.attribute_nodes.each { |attribute| attribute.remove if elsewhere?(attribute) }
        end

        # Whether it points at something outside the drawing.
        def elsewhere?(attribute)
          value = attribute.value
          return !value.start_with?("#") if attribute.node_name == "href"

          value.match?(/javascript:|data:/i) || value.match?(/url\((?!\s*['"]?#)/i)
        end

        def size(root)
          box = root["viewBox"].to_s.split(/[\s,]+/).map(&:to_f)
          width, height = box.length == 4 ? box.last(2) : [root["width"].to_f, root["height"].to_f]
          [width.round, height.round] if width >= 1 && height >= 1 && width < 100_000 && height < 100_000
        end

        def refuse(reason) = raise(Unreadable, reason)
      end
    end
  end
end

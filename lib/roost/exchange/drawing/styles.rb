# frozen_string_literal: true

require "crass"

module Roost
  module Exchange
    module Drawing
      # The style sheets and style attributes of an SVG, as attributes: drawing programs say colours
      # so, and style sheets can't stay. Knows selectors of one element (path, .st0, #bird, path.st0)
      # and lists of them; what it does not know it leaves out.
      class Styles
        # What can be said as an attribute. Source: SVG 2, presentation attributes.
        PROPERTIES = %w[fill fill-opacity fill-rule stroke stroke-width stroke-opacity stroke-linecap stroke-linejoin
                        stroke-dasharray stroke-dashoffset stroke-miterlimit opacity color display visibility clip-path
                        clip-rule mask stop-color stop-opacity font-family font-size font-style font-weight text-anchor
                        letter-spacing dominant-baseline paint-order vector-effect].freeze
        SELECTOR = /\A(?<tag>[a-zA-Z][\w-]*|\*)?(?:(?<sign>[.#])(?<name>[\w-]+))?\z/
        MOST_BYTES = 300_000
        MOST_RULES = 3_000

        # @param texts [Array<String>] of the style elements, in their order
        def initialize(texts)
          @rules = Hash.new { |all, key| all[key] = [] }
          @count = 0
          text = texts.join("\n")
          read(text) if text.bytesize <= MOST_BYTES
        end

        # Says as attributes what the sheets and the element's own style say of it; its own counts most.
        # @param element [Nokogiri::XML::Element]
        def resolve(element)
          said = matching(element).sort_by(&:first).map(&:last)
          [*said, declarations(Crass.parse_properties(element["style"].to_s.byteslice(0, MOST_BYTES).scrub))].each do |properties|
            properties.each { |name, value| element[name] = value }
          end
        end

        private

        def read(text)
          Crass.parse(text).each do |node|
            next unless node[:node] == :style_rule && (@count += 1) <= MOST_RULES

            properties = declarations(node[:children])
            node[:selector][:value].split(",").each { |selector| note(selector.strip, properties) }
          end
        end

        def note(selector, properties)
          found = selector.match(SELECTOR)
          return if found.nil? || properties.empty? || selector.empty?

          weight = { nil => 0, "." => 10, "#" => 100 }.fetch(found[:sign]) + (found[:tag] && found[:tag] != "*" ? 1 : 0)
          key = found[:sign] ? "#{found[:sign]}#{found[:name]}" : found[:tag]
          @rules[key] << [[weight, @rules.length + @count], (found[:tag] if found[:sign] && found[:tag] != "*"), properties]
        end

        def matching(element)
          keys = ["*", element.name, "##{element["id"]}", *element["class"].to_s.split.first(20).map { |name| ".#{name}" }]
          keys.select { |key| @rules.key?(key) }.flat_map { |key| @rules[key] }
              .filter_map { |weight, tag, properties| [weight, properties] if tag.nil? || tag == element.name }
        end

        def declarations(nodes)
          nodes.select { |node| node[:node] == :property && PROPERTIES.include?(node[:name].downcase) }
               .to_h { |node| [node[:name].downcase, node[:value].strip] }
        end
      end
    end
  end
end

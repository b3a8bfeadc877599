# frozen_string_literal: true

module Roost
  module Exchange
    module Drawing
      # How many parts a drawing comes to when it is shown: what is used several times, or fills others, is drawn as often. A few
      # lines can be 10^10 parts that way. What refers to itself is drawn once by no browser, and counts as nothing more.
      class Expansion
        # Chains of things that use each other, beyond which nobody draws.
        DEEPEST = 100
        DRAWN_AGAIN = %w[pattern mask clipPath symbol].freeze
        REFERENCE = /url\(\s*['"]?#([^'")\s]+)/

        # @param root [Nokogiri::XML::Element]
        # @param most [Integer] counts no further than beyond that
        # @return [Integer]
        def self.of(root, most) = new(root, most).total

        # @return [Integer]
        attr_reader :total

        def initialize(root, most)
          @most = most
          @named = root.xpath("//*[@id]").to_h { |node| [node["id"], node] }
          @known = {}.compare_by_identity
          @total = parts(root, 0)
        end

        private

        def parts(node, depth)
          return @most + 1 if depth > DEEPEST

          @known.fetch(node) do
            @known[node] = 0 # while it is looked at
            @known[node] = count(node, depth)
          end
        end

        def count(node, depth)
          sum = 1
          node.element_children.each { |child| return sum if (sum += parts(child, depth)) > @most }
          used(node).each { |other| return sum if (sum += parts(other, depth + 1)) > @most }
          sum
        end

        # What is drawn again for it.
        def used(node)
          names = node.attribute_nodes.flat_map do |attribute|
            attribute.node_name == "href" ? [attribute.value.delete_prefix("#")] : attribute.value.scan(REFERENCE).flatten
          end
          others = @named.values_at(*names).compact
          node.name == "use" ? others : others.select { |other| DRAWN_AGAIN.include?(other.name) }
        end
      end
    end
  end
end

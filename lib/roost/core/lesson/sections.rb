# frozen_string_literal: true

module Roost
  module Core
    # Which slides of a lesson belong to which section. What is seen are runs of consecutive
    # slides, none in two. What is kept are layers: a section that is made of a run lies on top
    # of those it is made from, and they are there again, whole and with their titles, when it is
    # taken apart or made again what they are. Where a layer is covered in its midst, or another
    # slide has come into it, each part is seen as a section of its own, run in the same way.
    class Sections
      include Enumerable

      # Layers that nothing is seen of are forgotten, oldest first, beyond this many in all.
      MOST_LAYERS = 100

      # @param layers [Array<Section>] the lowest first; no two of one id
      # @param order [Array<String>] ids of all slides of the lesson, in order
      def initialize(layers, order)
        @order = order
        places = order.each_with_index.to_h
        @layers = layers.map { |layer| layer.with(slide_ids: (layer.slide_ids & order).sort_by { |id| places[id] }.freeze) }
                        .reject { |layer| layer.slide_ids.empty? }.freeze
        @owner = @layers.flat_map { |layer| layer.slide_ids.map { |id| [id, layer.id] } }.to_h.freeze
        @list = runs.freeze
        @of = @list.flat_map { |section| section.slide_ids.map { |id| [id, section] } }.to_h.freeze
        freeze
      end

      def each(&block) = @list.each(&block)

      # @return [Section, nil] the section of a slide
      def of(slide_id) = @of[slide_id]

      # @return [Section, nil]
      def section(id) = find { |section| section.id == id }

      # The layers with a new one of these slides, which are consecutive, on top.
      # @return [Array<Section>]
      def with_run(slide_ids, id, way)
        kept = layers.length < MOST_LAYERS ? layers : seen_layers
        kept + [Section.new(id: id, way: way, title: "", slide_ids: slide_ids, rules: {}.freeze).freeze]
      end

      # The layers with one section run in another way or with another title. What becomes again
      # what lies under it is that again.
      # @param changes [Hash] :way, :title or :rules
      # @return [Array<Section>]
      def changed(id, **changes)
        layer = layer_of(id)
        return layers unless layer
        return without(id) if changes[:way] && changes[:way] != layer.way && under(layer)&.way == changes[:way]
        return replaced(layer, layer.with(**changes)) if whole?(section(id)) || changes.fetch(:way, layer.way) == layer.way

        part = section(id)
        rest = layer.with(id: "#{layer.id}-rest", slide_ids: layer.slide_ids - part.slide_ids)
        at = layers.index(layer)
        layers.dup.tap { |all| all[at, 1] = [rest, part.with(**changes)] }
      end

      # @return [Array<Section>] the layers without one section; under it is what was there before
      def without(id)
        gone = section(id)
        layer = gone && layer_of(id)
        layer ? replaced(layer, layer.with(slide_ids: layer.slide_ids - gone.slide_ids)) : layers
      end

      # The layers with these slides in the section of that id, or in none.
      # @return [Array<Section>]
      def placing(slide_ids, section_id)
        target = section_id && layer_of(section_id)
        moved = slide_ids.reject { |id| target && @owner[id] == target.id }
        layers.map do |layer|
          others = layer.slide_ids - moved
          layer.with(slide_ids: target && holds?(layer, target) ? others + moved : others)
        end
      end

      # The layers with slides that are new wherever the one before them is.
      # @return [Array<Section>]
      def joining(slide_id, added)
        layers.map { |layer| layer.slide_ids.include?(slide_id) ? layer.with(slide_ids: layer.slide_ids + added) : layer }
      end

      # @return [Array<Section>] the layers, the lowest first
      attr_reader :layers

      def to_document = layers.map(&:to_document)

      private

      # The layer a section is seen of.
      def layer_of(section_id)
        seen = section(section_id)
        seen && layers.find { |layer| layer.id == @owner[seen.slide_ids.first] }
      end

      def whole?(section) = layer_of(section.id).slide_ids == section.slide_ids

      # Whether one layer is another, or lies under all of it.
      def holds?(layer, target)
        layer.equal?(target) || (layers.index(layer) < layers.index(target) && (target.slide_ids - layer.slide_ids).empty?)
      end

      # What lies under all of a layer, when that is one.
      def under(layer)
        below = layers.take_while { |other| !other.equal?(layer) }
        found = layer.slide_ids.map { |id| below.reverse.find { |other| other.slide_ids.include?(id) } }.uniq
        found.first if found.one?
      end

      def replaced(layer, other) = layers.map { |each| each.equal?(layer) ? other : each }

      def seen_layers = layers.select { |layer| @owner.value?(layer.id) }

      def runs
        known = layers.to_h { |layer| [layer.id, layer] }
        seen = []
        @order.chunk_while { |one, other| @owner[one] == @owner[other] }.filter_map do |ids|
          layer = known[@owner[ids.first]] || next
          torn = seen.include?(layer.id)
          seen << layer.id
          layer.with(id: torn ? "#{layer.id}-#{ids.first}" : layer.id, slide_ids: ids.freeze)
        end
      end
    end
  end
end

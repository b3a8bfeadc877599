# frozen_string_literal: true

module Roost
  module Core
    # Which slides of a lesson belong to which section. A section is always one run of
    # consecutive slides and never empty: where a change tears it apart, each part
    # becomes a section of its own, run in the same way.
    class Sections
      include Enumerable

      # @param sections [Array<Section>]
      # @param order [Array<String>] ids of all slides of the lesson, in order
      def initialize(sections, order)
        @order = order
        known = sections.to_h { |section| [section.id, section] }
        @owner = sections.flat_map { |section| section.slide_ids.map { |id| [id, section.id] } }.to_h.slice(*order)
        @list = runs(known)
        @of = @list.flat_map { |section| section.slide_ids.map { |id| [id, section] } }.to_h.freeze
        freeze
      end

      def each(&block) = @list.each(&block)

      # @return [Section, nil] the section of a slide
      def of(slide_id) = @of[slide_id]

      # @return [Section, nil]
      def section(id) = find { |section| section.id == id }

      # The sections with these slides, which are consecutive, in one of their own.
      # @return [Array<Section>]
      def with_run(slide_ids, id, way)
        rest = map { |section| section.with(slide_ids: section.slide_ids - slide_ids) }
        rest + [Section.new(id: id, way: way, title: "", slide_ids: slide_ids).freeze]
      end

      # @return [Array<Section>] with one of them changed
      def changed(id, **changes) = map { |section| section.id == id ? section.with(**changes) : section }

      # @return [Array<Section>] without one of them; its slides are in none then
      def without(id) = reject { |section| section.id == id }

      # @return [Array<Section>] with these slides in the section of that id, or in none
      def placing(slide_ids, section_id)
        map do |section|
          others = section.slide_ids - slide_ids
          section.with(slide_ids: section.id == section_id ? others + slide_ids : others)
        end
      end

      def to_document = map(&:to_document)

      private

      def runs(known)
        seen = []
        @order.chunk_while { |one, other| @owner[one] == @owner[other] }.filter_map do |ids|
          section = known[@owner[ids.first]] || next
          torn = seen.include?(section.id)
          seen << section.id
          section.with(id: torn ? "#{section.id}-#{ids.first}" : section.id, slide_ids: ids.freeze)
        end
      end
    end
  end
end

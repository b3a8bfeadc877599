# frozen_string_literal: true

module Roost
  module Core
    # What a teacher prepares: a title and slides in order. A value: every change
    # gives a new lesson. Kept as one document with its own schema version.
    class Lesson
      SCHEMA = 1
      TITLE_LIMIT = 120
      SLIDE_LIMIT = 300

      attr_reader :title, :slides

      def self.from_document(document)
        raise ArgumentError, "lesson schema #{document["schema"]} is not #{SCHEMA}" unless document.fetch("schema") == SCHEMA

        new(title: document.fetch("title"), slides: document.fetch("slides").map { |slide| Slide.from_document(slide) })
      end

      # @return [Reading] of a title to give a lesson
      def self.read_title(raw)
        Text.read(raw, limit: TITLE_LIMIT, what: "The title", lines: false).and_then do |title|
          title.empty? ? Reading.refused("A lesson needs a title. Type one.") : Reading.ok(title)
        end
      end

      def initialize(title:, slides: [])
        @title = title
        @slides = slides.freeze
        @places = slides.each_with_index.to_h { |slide, place| [slide.id, place] }.freeze
        freeze
      end

      # @return [Slide, nil]
      def slide(id) = (place = place(id)) && slides[place]

      # Position from 0, or nil when there is no such slide.
      def place(id) = @places[id]

      # The slide `by` places after the one with this id, or nil past either end.
      def neighbour(id, by)
        target = place(id)&.+(by)
        target && target >= 0 ? slides[target] : nil
      end

      def prompts = slides.select(&:prompt)

      # Slides whose question is played for points.
      def game_slides = slides.select { |slide| slide.prompt&.game? }

      def renamed(title) = Lesson.new(title: title, slides: slides)

      def with_slide_after(id, slide)
        at = id && place(id) ? place(id) + 1 : slides.length
        Lesson.new(title: title, slides: slides.dup.insert(at, slide))
      end

      # The lesson with a copy of one slide after it; the copy's question is one of its own.
      def duplicating(id, copy_id)
        original = slide(id)
        prompt = original.prompt&.copy("p#{copy_id}")
        with_slide_after(id, original.with(id: copy_id, rev: 1, prompt: prompt))
      end

      def without_slide(id) = Lesson.new(title: title, slides: slides.reject { |slide| slide.id == id })

      def replacing(slide) = Lesson.new(title: title, slides: slides.map { |old| old.id == slide.id ? slide : old })

      # The lesson with one slide moved to a position from 0, kept within the ends.
      def moving(id, to)
        moved = slide(id)
        rest = slides.reject { |other| other.id == id }
        Lesson.new(title: title, slides: rest.insert(to.clamp(0, rest.length), moved))
      end

      def to_document = { "schema" => SCHEMA, "title" => title, "slides" => slides.map(&:to_document) }

      def ==(other) = other.is_a?(Lesson) && to_document == other.to_document
    end
  end
end

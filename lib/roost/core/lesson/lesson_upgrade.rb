# frozen_string_literal: true

module Roost
  module Core
    # Brings a lesson document of an earlier schema to the present one. Sessions that have
    # run keep the document they began with, so every schema stays readable.
    module LessonUpgrade
      # @raise [ArgumentError] for a schema that is not known
      def self.call(document)
        case document.fetch("schema")
        when Lesson::SCHEMA then document
        when 1 then from_first(document)
        else raise ArgumentError, "lesson schema #{document["schema"]} is not known"
        end
      end

      # Schema 1 had one picture a slide, no sections, and played every choice with a key, a
      # time limit and points.
      def self.from_first(document)
        slides = document.fetch("slides")
        rounds = slides.chunk_while { |one, other| played?(one) == played?(other) }.select { |run| played?(run.first) }
        sections = rounds.each_with_index.map do |run, place|
          { "id" => "round#{place + 1}", "way" => "game", "slide_ids" => run.map { |slide| slide["id"] } }
        end
        document.merge("schema" => 2, "sections" => sections, "slides" => slides.map { |slide| slide_from_first(slide) })
      end

      def self.played?(slide)
        prompt = slide["prompt"] || {}
        Array(prompt["keys"]).any? && prompt["time_limit"] && prompt["points"] ? true : false
      end

      def self.slide_from_first(slide)
        prompt = slide["prompt"]
        prompt &&= prompt.merge("poll" => Array(prompt["keys"]).empty?)
        slide.except("picture").merge("pictures" => [slide["picture"]].compact, "prompt" => prompt)
      end
      private_class_method :from_first, :played?, :slide_from_first
    end
  end
end

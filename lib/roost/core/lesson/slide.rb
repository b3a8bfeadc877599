# frozen_string_literal: true

module Roost
  module Core
    # One screenful: heading, text (Markdown), at most one picture, private notes
    # for the teacher, and at most one prompt. `rev` rises with every save of this
    # slide, so that two editors never overwrite each other.
    class Slide
      LIMITS = { heading: 200, text: 5_000, notes: 5_000, alt: 400 }.freeze
      NAMES = { heading: "The heading", text: "The text", notes: "The notes", alt: "The picture's description" }.freeze

      attr_reader :id, :rev, :heading, :text, :notes, :picture, :prompt

      def self.from_document(document)
        new(id: document.fetch("id"), rev: document.fetch("rev", 1), heading: document.fetch("heading", ""),
            text: document.fetch("text", ""), notes: document.fetch("notes", ""),
            picture: Picture.from_document(document["picture"]),
            prompt: Prompts.from_document(document["prompt"]))
      end

      def initialize(id:, rev: 1, heading: "", text: "", notes: "", picture: nil, prompt: nil)
        @id = id
        @rev = rev
        @heading = heading
        @text = text
        @notes = notes
        @picture = picture
        @prompt = prompt
        freeze
      end

      def with(**changes)
        Slide.new(id: id, rev: rev, heading: heading, text: text, notes: notes, picture: picture, prompt: prompt,
                  **changes)
      end

      # Reads what an editor's form holds.
      #
      # @param form [Hash{String=>Object}] "heading", "text", "notes", "alt", and
      #   "prompt" with the settings of its kind
      # @return [Reading] of the changed slide
      def edited(form)
        texts = LIMITS.keys.to_h do |field|
          [field, Text.read(form[field.to_s], limit: LIMITS[field], what: NAMES[field], lines: field != :heading)]
        end
        refused = texts.values.find { |reading| !reading.ok? }
        return refused if refused

        read_prompt(form["prompt"]).map do |new_prompt|
          with(heading: texts[:heading].value, text: texts[:text].value, notes: texts[:notes].value,
               picture: picture && Picture.new(**picture.to_h, alt: texts[:alt].value).freeze, prompt: new_prompt)
        end
      end

      # What the run sheet and the results call this slide.
      def name
        return heading unless heading.empty?

        first = text.lines.first.to_s.gsub(/[#*_>`]/, "").strip
        first.empty? ? "Untitled slide" : first[0, 60]
      end

      # Words a student has to read before answering (rules: reading time).
      def words = Text.words(heading) + Text.words(text) + (prompt ? prompt.words : 0)

      # What an editor still has to do, in short phrases.
      def problems = prompt ? prompt.problems : []

      def to_document
        { "id" => id, "rev" => rev, "heading" => heading, "text" => text, "notes" => notes,
          "picture" => picture&.to_document, "prompt" => prompt&.to_document }
      end

      def ==(other) = equal?(other) || (other.is_a?(Slide) && to_document == other.to_document)

      private

      def read_prompt(form)
        return Reading.ok(prompt) unless prompt && form
        return Reading.refused("The question's settings could not be read. Reload the page.") unless form.is_a?(Hash)

        prompt.edited(form)
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    # Consecutive slides that are run in one way: "paced" (the teacher moves), "quiz"
    # (students move through it at their own speed) or "game" (paced, timed, with points
    # and standings). Which slides belong to it is a list of their ids; the slides know
    # nothing of it, so that turning a run of slides into a quiz and back changes none.
    Section = Struct.new(:id, :way, :title, :slide_ids, keyword_init: true) do
      self::WAYS = { "paced" => "Paced", "quiz" => "Quiz", "game" => "Game round" }.freeze
      self::PURPOSES = { "paced" => "You move everybody through it", "quiz" => "Students move through it at their own speed",
                         "game" => "You move; timed, with points and standings" }.freeze
      self::TITLE_LIMIT = 80

      def self.from_document(document)
        new(id: document.fetch("id"), way: document.fetch("way"), title: document.fetch("title", ""),
            slide_ids: document.fetch("slide_ids").freeze).freeze
      end

      # @return [Reading] of a title for a section; may be empty
      def self.read_title(raw) = Text.read(raw, limit: self::TITLE_LIMIT, what: "The title of a section", lines: false)

      def with(**changes) = self.class.new(**to_h, **changes).freeze

      def name = title.empty? ? label : title

      def label = self.class::WAYS.fetch(way)

      def game? = way == "game"

      # Whether its questions want a key: nobody can be marked without one.
      def marked? = way != "paced"

      def to_document = { "id" => id, "way" => way, "title" => title, "slide_ids" => slide_ids }
    end
  end
end

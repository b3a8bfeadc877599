# frozen_string_literal: true

module Roost
  module Core
    # What a lesson is about, beside its title: for the teacher's list, for searching, and
    # (goal and vocabulary) for the class.
    #
    # vocabulary:: Array of words
    # theme::      one of Details::THEMES: colour and type of the lesson
    Details = Struct.new(:description, :subject, :level, :goal, :vocabulary, :theme, keyword_init: true) do
      self::LIMITS = { description: 1000, subject: 60, level: 60, goal: 300, vocabulary: 1500 }.freeze
      self::NAMES = { description: "The description", subject: "The subject", level: "The level", goal: "The goal",
                      vocabulary: "The vocabulary" }.freeze
      self::THEMES = { "dusk" => "Dusk", "reed" => "Reed", "mere" => "Mere", "heather" => "Heather", "clay" => "Clay",
                       "frost" => "Frost" }.freeze

      def self.blank
        new(description: "", subject: "", level: "", goal: "", vocabulary: [].freeze, theme: self::THEMES.keys.first).freeze
      end

      def self.from_document(document)
        known = (document || {}).slice(*members.map(&:to_s)).transform_keys(&:to_sym)
        new(**blank.to_h, **known).freeze
      end

      # @param form [Hash{String=>String}] fields that are not there stay as they are;
      #   vocabulary as words with commas or line ends between
      # @return [Reading] of Details
      def edited(form)
        changes = {}
        self.class::LIMITS.each do |field, limit|
          next unless form.key?(field.to_s)

          reading = Text.read(form[field.to_s], limit: limit, what: self.class::NAMES[field],
                                                lines: %i[description vocabulary].include?(field))
          return reading unless reading.ok?

          changes[field] = field == :vocabulary ? words(reading.value) : reading.value
        end
        changes[:theme] = form["theme"] if self.class::THEMES.key?(form["theme"])
        Reading.ok(self.class.new(**to_h, **changes).freeze)
      end

      def to_document = to_h.transform_keys(&:to_s)

      private

      def words(text) = text.split(/[,;\n]/).map(&:strip).reject(&:empty?).uniq.first(60).freeze
    end
  end
end

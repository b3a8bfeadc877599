# frozen_string_literal: true

module Roost
  module Core
    # What a slide asks of students. Every kind is one subclass in core/prompts/ and
    # has the same methods in the same order:
    #
    # about itself::  .label, .place, .purpose, .on_the_spot, .charted?, .blank, #instruction
    # its settings::  #edited, #problems, #keyed?, #words
    # an answer::     #read, #blank_answer?, #mark, #tally, #plain
    # rehearsal::     #imagine
    #
    # Nothing outside core/prompts/ and the views and elements of a kind knows which
    # kinds there are. Settings are a frozen Hash as it stands in the lesson document.
    class Prompt
      TIME_LIMITS = (5..600)
      POINTS = (0..1000)

      # Settings with which the kind can be asked on the spot, by what the button says.
      # @return [Hash{String=>Hash}]
      def self.on_the_spot = { label => {} }

      # Whether the tally says more than the list of answers does.
      def self.charted? = false

      attr_reader :id, :settings

      # The kind's name in documents, folders and CSS classes.
      def self.kind = name.split("::").last.downcase

      def initialize(id:, settings:)
        @id = id
        @settings = self.class.blank.merge(settings).freeze
        freeze
      end

      def kind = self.class.kind

      def label = self.class.label

      # Whether the answer is given on the slide's picture, which then isn't shown twice.
      def uses_picture? = false

      # Seconds, or nil when answering is not timed.
      def time_limit = settings["time_limit"]

      # Points for a full mark, or nil when the prompt is not played for points.
      def points = settings["points"]

      # A timed question with a key that is played for points (rules: points in a game round).
      def game? = keyed? && !time_limit.nil? && !points.nil?

      def keyed? = false

      def words = 0

      def problems
        return [] unless points

        [("no time limit" unless time_limit), ("no key yet" unless keyed?)].compact
      end

      # Marks are given by hand unless the kind says otherwise.
      # @return [Rational, nil] how right a value is, 0 to 1; nil when nothing marks it
      def mark(_value) = nil

      # What a question of any kind goes on with when its kind is changed.
      def shared = settings.slice("time_limit")

      # The same question under another id.
      def copy(copy_id) = self.class.new(id: copy_id, settings: settings)

      def to_document = settings.merge("id" => id, "kind" => kind)

      def ==(other) = other.is_a?(Prompt) && to_document == other.to_document

      private

      def with_settings(changes) = self.class.new(id: id, settings: settings.merge(changes))

      # The settings every kind has, from an editor's form.
      # @return [Reading] of a Hash with "time_limit" and "points"
      def read_common(form)
        read_number(form["time_limit"], TIME_LIMITS, "The time limit", "seconds").and_then do |time_limit|
          read_number(form["points"], POINTS, "Points", "points").map do |points|
            { "time_limit" => time_limit, "points" => points }
          end
        end
      end

      def read_number(raw, range, what, unit)
        text = raw.to_s.strip
        return Reading.ok(nil) if text.empty?

        number = Integer(text, 10, exception: false)
        return Reading.ok(number) if number && range.cover?(number)

        Reading.refused("#{what} can be #{range.min} to #{range.max} #{unit}, or empty.")
      end

      # One text field of an answer, as a device sends it: {"name" => ["text"]}.
      def field(raw, name)
        return nil unless raw.is_a?(Hash)

        values = raw[name]
        values.is_a?(Array) ? values.first : values
      end
    end
  end
end

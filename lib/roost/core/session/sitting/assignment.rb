# frozen_string_literal: true

module Roost
  module Core
    module Session
      # A lesson, or some of its sections, that each student goes through alone, between two times (epoch seconds).
      #
      # sections:: ids of those that are given; none for the whole lesson
      # rules:: of Sitting::RULES; unassigned:: whether it was taken back
      # pieces:: of one that is for some students only: Hash of a student's id (text) to ids of the slides that are
      #          theirs; nil where all get the same
      Assignment = Struct.new(:session_id, :sections, :opens_at, :closes_at, :rules, :unassigned, :pieces, keyword_init: true) do
        self::LONGEST = 400 * 86_400 # seconds between opening and closing
        self::ATTEMPTS = { "1" => "Once", "2" => "Twice", "3" => "Three times", "" => "As often as they like" }.freeze
        self::COUNTS = { "best" => "the best counts", "last" => "the last counts", "first" => "the first counts",
                         "mean" => "the mean of all counts" }.freeze

        class << self
          # @param form [Hash{String=>Object}] "opens_at", "closes_at" (as SchoolTime reads them), "sections", "attempts",
          #   "counts" and what Section.read_rules reads
          # @param time [#read] of a text to epoch seconds: Exchange::SchoolTime
          # @return [Reading] of an Assignment that has no session yet
          def read(form, lesson:, time:, now:)
            read_times(form, time: time, now: now).and_then do |opens_at, closes_at|
              read_rules(form).map do |rules|
                new(sections: lesson.sections.map(&:id) & Array(form["sections"]), opens_at: opens_at, closes_at: closes_at,
                    rules: rules, unassigned: false).freeze
              end
            end
          end

          # @param form [Hash{String=>Object}] as #read
          # @return [Reading] of when it opens and closes
          def read_times(form, time:, now:)
            opens, closes = %w[opens_at closes_at].map { |name| time.read(form[name]) }
            bad = [opens, closes].find { |each| !each.ok? } || refusal(opens.value, closes.value, now)
            bad || Reading.ok([opens.value, closes.value])
          end

          # @param form [Hash{String=>Object}] as #read
          # @return [Reading] of Sitting::RULES
          def read_rules(form) = Section.read_rules(form).map { |rules| { **rules, **attempts(form) }.freeze }

          private

          def refusal(opens, closes, now)
            return Reading.refused("It has to close after it opens.") if closes <= opens
            return Reading.refused("It closes in the past. Choose a later time.") if closes <= now

            Reading.refused("It can be open for a year at most.") if closes - opens > self::LONGEST
          end

          def attempts(form)
            chosen = self::ATTEMPTS.key?(form["attempts"]) ? form["attempts"] : "1"
            counts = self::COUNTS.key?(form["counts"]) ? form["counts"] : "best"
            { "attempts" => chosen.empty? ? nil : chosen.to_i, "counts" => counts }
          end
        end

        # Whether it is for a student.
        # @param student_id [Integer, nil]
        def for?(student_id) = pieces.nil? || pieces.key?(student_id.to_s)

        # @param student_id [Integer, nil] whose; nil of nobody on the class list
        # @return [Array<Slide>] that are given, in order
        def slides(lesson, student_id = nil)
          return pieces.fetch(student_id.to_s, []).filter_map { |id| lesson.slide(id) } if pieces
          return lesson.class_slides if sections.empty?

          lesson.class_slides.select { |slide| sections.include?(lesson.section_of(slide.id)&.id) }
        end

        # The same with other times, or other rules.
        def with(**changes) = self.class.new(**to_h, **changes).freeze

        # Where it stands.
        # @return [Symbol] :unassigned, :coming, :open or :closed
        def stage(now)
          return :unassigned if unassigned
          return :coming if now < opens_at

          now < closes_at ? :open : :closed
        end
      end
    end
  end
end

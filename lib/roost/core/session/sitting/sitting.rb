# frozen_string_literal: true

require "digest"

module Roost
  module Core
    module Session
      # One student going through slides at their own speed: a quiz section, an assignment, a replay
      # (rules.md, sittings). Times are seconds since the epoch by the database clock.
      #
      # slides:: ids, as this sitting has them: drawn and shuffled already
      # place:: where the student is, first_open and last_open:: which slides may be answered; from 1
      # deadline:: of this student's own time; window_ends_at:: of everybody's
      # seen:: ids of the slides that were looked at; moved_at:: when something last changed
      Sitting = Struct.new(:attempt, :slides, :place, :first_open, :last_open, :rules, :started_at, :deadline, :window_ends_at,
                           :handed_in_at, :seen, :moved_at, keyword_init: true) do
        # must_answer:: no slide after the first unanswered; going_back:: to earlier slides
        # feedback:: one of FEEDBACK; shuffled:: the order of the slides; draw:: how many of them, nil for all
        # limit:: seconds, nil for none; attempts:: 1 to 10, nil for any number; counts:: one of COUNTS
        self::RULES = { "must_answer" => false, "going_back" => true, "feedback" => "end", "shuffled" => false, "draw" => nil,
                        "limit" => nil, "attempts" => 1, "counts" => "best" }.freeze
        self::FEEDBACK = %w[none right explained end].freeze
        self::TOLD_AT_ONCE = %w[right explained].freeze
        self::COUNTS = %w[best last first mean].freeze
        self::ATTEMPTS = (1..10)

        class << self
          # A sitting that begins now.
          # @param slides [Array<String>] ids of the section's slides
          # @param asked [Array<String>] those of them that ask something: only these are drawn
          # @param rules [Hash] as RULES; what is left out is as there
          # @param window [Array(Float, Float)] when it opens and ends; nil where it doesn't
          # @param time_factor [Numeric] of the student
          # @param seed [String] the same sitting gets the same questions by it
          # @return [Reading] of a Sitting
          def begin(slides, asked:, rules:, now:, attempt: 1, window: [nil, nil], time_factor: 1, seed: "")
            rules = self::RULES.merge(rules).freeze
            opens_at, ends_at = window
            return Reading.refused("This isn't open yet.") if opens_at && now < opens_at
            return Reading.refused("The time for this is over.") if ends_at && now >= ends_at
            return Reading.refused("No attempt is left.") if rules["attempts"] && attempt > rules["attempts"]

            drawn = drawn(slides, asked, rules, "#{seed} #{attempt}")
            sitting = new(attempt: attempt, slides: drawn.freeze, place: 1, first_open: 1, last_open: drawn.length, rules: rules,
                          started_at: now, deadline: rules["limit"] && (now + (rules["limit"] * time_factor)),
                          window_ends_at: ends_at, seen: [].freeze, moved_at: now).freeze
            Reading.ok(sitting.at(1, answered: []))
          end

          private

          # k of the questions by the seed, slides that ask nothing stay; then the order, by the same.
          def drawn(slides, asked, rules, seed)
            by_seed = ->(what) { ->(id) { Digest::SHA256.digest("#{seed} #{what} #{id}") } }
            kept = rules["draw"] ? asked.sort_by(&by_seed.call("draw")).first(rules["draw"]) : asked
            left = slides.select { |id| kept.include?(id) || !asked.include?(id) }
            rules["shuffled"] ? left.sort_by(&by_seed.call("order")) : left
          end
        end

        # When it ends if it is not handed in before; nil when it need not.
        # @return [Float, nil]
        def ends_at = [deadline, window_ends_at].compact.min

        def over?(now) = !handed_in_at.nil? || (!ends_at.nil? && now > ends_at)

        # Whether nothing can come in any more that counts: handed in, or the grace after its end is over.
        def settled?(now) = !handed_in_at.nil? || (!ends_at.nil? && now > ends_at + Opening::GRACE)

        # @return [String] id of the slide the student is at
        def slide_id = slides[place - 1]

        # Whether an answer to that slide at that time counts.
        def cover?(time, slide_id)
          return false unless handed_in_at.nil? && started_at <= time && may_be_on?(slide_id)

          ends_at.nil? || time <= ends_at + Opening::GRACE
        end

        def may_be_on?(slide_id)
          at = slides.index(slide_id)
          !at.nil? && (at + 1).between?(first_open, last_open)
        end

        # Whether the student may go to a slide.
        # @param place [Integer] from 1
        # @param answered [Array<String>] ids of slides that have been answered, and of those that ask nothing
        def open?(place, answered:) = place.between?(rules["going_back"] ? 1 : self.place, furthest(answered))

        # The sitting at another of its slides, as far as its rules let it.
        # @param place [Integer] from 1
        # @param answered [Array<String>] as #open?
        # @return [Sitting]
        def at(place, answered:)
          furthest = furthest(answered)
          least = rules["going_back"] ? 1 : self.place
          here = place.clamp(least, [furthest, least].max)
          first, last = rules["going_back"] ? [1, furthest] : [here, here]
          with(place: here, first_open: first, last_open: [first, last].max)
        end

        # The sitting as it was kept after a move.
        def kept(seen:, moved_at:) = with(seen: seen, moved_at: moved_at)

        def handed_in(now) = with(handed_in_at: now)

        # More time for this student.
        def extended(seconds) = with(deadline: deadline && (deadline + seconds))

        # Whether the student may go to all slides as they like.
        def free? = rules["going_back"] && !rules["must_answer"]

        # Whether what was answered is told, and so settled, before it is handed in.
        def told_at_once? = self.class::TOLD_AT_ONCE.include?(rules["feedback"])

        # @param answered [Array<String>] ids of slides
        # @return [Hash{String=>Symbol}] slide id to :answered, :seen or :waiting
        def progress(answered:)
          slides.to_h do |id|
            state = if answered.include?(id) then :answered
                    else
                      seen.include?(id) ? :seen : :waiting
                    end
            [id, state]
          end
        end

        private

        # The first that has not been answered, where that has to be.
        def furthest(answered)
          return slides.length unless rules["must_answer"]

          (slides.index { |id| !answered.include?(id) } || (slides.length - 1)) + 1
        end

        def with(**changes) = self.class.new(**to_h, **changes).freeze
      end
    end
  end
end

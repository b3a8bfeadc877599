# frozen_string_literal: true

module Roost
  module Core
    module Session
      # When an answer counts (rules.md): the one rule, as Store::Answers::SAVE has it in SQL. A spec
      # compares the two over thousands of situations.
      module Acceptance
        # Late saves are taken until this long after the end of the session, or of the sitting, in seconds.
        LATEST = 3600

        # A save that came.
        #
        # at:: when, by the database clock; final:: it is handed in; readable:: it can be read as an answer
        # keyed:: something marks it; changeable:: what is handed in may be changed
        # save_no, save_id, writer, over:: see Operations::SaveAnswer
        # entered:: by the teacher, for a team at the board: she may correct what she entered at any time
        # in_time_only:: to be stored only when it is in time; by_line:: it is late for the line's sake
        Save = Struct.new(:at, :final, :readable, :keyed, :changeable, :save_no, :save_id, :writer, :over, :in_time_only,
                          :by_line, :entered, keyword_init: true)
        # What is stored of that seat, slide and attempt.
        Stored = Struct.new(:final, :late, :save_no, :save_id, :writer, keyword_init: true)
        # Whose it is. joined_at:: epoch seconds; factor:: of their time
        # told_at:: when that seat was told how it went with that question and attempt, or what is right; nil before
        Sender = Struct.new(:joined_at, :factor, :told_at, keyword_init: true)

        class << self
          # @param save [Save]
          # @param sender [Sender]
          # @param slide_id [String]
          # @param opening [Opening, nil] of that slide and attempt, for everybody
          # @param sitting [Sitting, nil] of that seat and attempt, which has that slide
          # @param ended_at [Float, nil] when the session ended
          # @param stored [Stored, nil]
          # @return [Symbol] :in_time or :late when it is stored, :nothing when it isn't
          def of(save, sender:, slide_id:, opening:, sitting:, ended_at:, stored:)
            return :nothing if ended_at && save.at >= ended_at + LATEST
            return :nothing unless there?(save, sender, slide_id, opening, sitting)

            in_time = in_time?(save, sender, slide_id, opening, sitting)
            return :nothing if save.in_time_only && !in_time
            return :nothing if stored && !replaces?(save, stored, in_time, settled: told_at_once?(sitting))

            in_time ? :in_time : :late
          end

          private

          def told_at_once?(sitting) = sitting ? sitting.told_at_once? : false

          # Whether the seat could have been on that slide. Whoever came after it had closed could not.
          def there?(save, sender, slide_id, opening, sitting)
            ends = opening&.ends_at(sender.factor)
            return true if opening && (ends.nil? || sender.joined_at <= ends + Opening::GRACE)
            return false unless sitting&.may_be_on?(slide_id)

            over = [sitting.handed_in_at, sitting.ends_at].compact.min
            over.nil? || save.at < over + LATEST
          end

          # Nothing counts that comes after the seat was told how it went.
          def in_time?(save, sender, slide_id, opening, sitting)
            return false if sender.told_at && sender.told_at <= save.at

            grace = save.by_line ? LineDelay::MOST : Opening::GRACE
            opening&.cover?(save.at, grace: grace, factor: sender.factor) || sitting&.cover?(save.at, slide_id) || false
          end

          # @param settled [Boolean] whether it was told how one did, so that nothing changes that was handed in
          def replaces?(save, stored, in_time, settled:)
            save.save_no > stored.save_no && (save.entered || device_replaces?(save, stored, in_time, settled))
          end

          def device_replaces?(save, stored, in_time, settled)
            return false if stored.final && !save.readable
            return false unless same_window?(save, stored)

            return !stored.final && (stored.late || !save.keyed) unless in_time

            stored.late || !stored.final || (save.changeable && !settled)
          end

          # What one window wrote replaces what another did only where it was written over it.
          def same_window?(save, stored)
            stored.writer.nil? || save.writer.nil? || stored.writer == save.writer || save.over.include?(stored.save_id)
          end
        end
      end
    end
  end
end

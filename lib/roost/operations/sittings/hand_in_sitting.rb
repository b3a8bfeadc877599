# frozen_string_literal: true

module Roost
  module Operations
    # A student hands in a sitting: what they have given counts as handed in, and what they left out as left out.
    class HandInSitting
      # @param seat [Hash] :id
      # @param taken [TakeSitting::Taken]
      def call(seat, taken)
        sittings = Store::Sittings.new
        sittings.transaction do
          kept = sittings.find(taken.kept.id, lock: true)
          now = sittings.now
          next if kept.sitting.over?(now)

          finish(seat, taken, kept.sitting)
          sittings.update(kept.id, kept.sitting.handed_in(now))
          Live::Bus.announce(kept.session_id, :answers)
        end
      end

      private

      # By earlier rules what was left out counted only for whoever handed in.
      def show_all(seat, taken, sitting)
        asked = sitting.slides.select { |id| taken.lesson.slide(id)&.prompt }
        Store::Deliveries.new.note_all(taken.kept.session_id, asked, seat[:id], attempt: sitting.attempt)
      end

      def finish(seat, taken, sitting)
        given = TakeSitting.answered(taken.lesson, sitting, taken.answers) & taken.answers.keys
        Store::Answers.new.hand_in(seat[:id], given, sitting.attempt)
        show_all(seat, taken, sitting) unless taken.rules.whole_sittings?
      end
    end
  end
end

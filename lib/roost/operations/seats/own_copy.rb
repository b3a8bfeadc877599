# frozen_string_literal: true

module Roost
  module Operations
    # A student's own copy of a session: its slides, what they gave, and of what was right what may be told
    # (Core::Session::Disclosure). As long as the teacher lets them have it, and once nothing can be asked of them any more.
    class OwnCopy
      # pages:: [Page], the slides the student got; share:: nil while anybody may still answer the same questions
      # notes:: [String], theirs on what is on no page, as the card of a quiz
      Copy = Struct.new(:row, :pages, :share, :notes, keyword_init: true)
      # outcome:: Core::Session::Outcome, nil of a slide that asks nothing; level:: what may be told: :nothing, :outcome or :key
      # note:: theirs, comment:: of the teacher on the answer; "" without one
      # steps:: Array of Core::Step by which mark and points came about, as far as they may be told
      # hand:: the mark that the teacher gave, nil where none did, or students don't see it; rubric:: levels of it, or nil
      # drawn_on:: strokes of the teacher over it, or nil
      Page = Struct.new(:slide, :outcome, :level, :note, :comment, :hand, :rubric, :steps, :drawn_on,
                        keyword_init: true) do
        def told? = level != :nothing

        def explained? = level == :key
      end

      # @param row [Store::Sessions::Row]
      # @param seat_id [Integer]
      # @return [Copy, nil] nil while there is none, or it is not allowed
      def call(row, seat_id)
        return nil unless OwnCopy.allowed?(row, seat_id)

        record = Store::Records.new.for_students(row, seat_id: seat_id)
        sittings = Store::Sittings.new.all_of_seat(seat_id)
        contested = !row.options.released && StillOpen.new.call(row).any?
        shown = slides(row, seat_id, record)
        pages = pages(record, shown, seat_id) { |slide| level(row, record, sittings, slide, seat_id, contested) }
        notes = notes(seat_id).except(*shown.map(&:id)).values
        settle(sittings, seat_id, pages)
        Copy.new(row: row, pages: pages, notes: notes, share: (share(record, seat_id) unless contested)).freeze
      end

      def self.allowed?(row, seat_id) = row.options.own_copy && OwnCopy.over?(row, seat_id)

      # Whether nothing can be asked of that seat any more: a session is over for the room by its end, for one alone when the last
      # attempt is.
      def self.over?(row, seat_id)
        return false if row.deleted
        return !row.ended_at.nil? unless row.self_paced

        kept = Store::Sittings.new.latest_of_seat(seat_id)
        kept&.sitting&.settled?(row.now) && (row.options.released || told_of?(kept.sitting, row, seat_id))
      end

      # Whether a student may be told how a session went: then its share stands on their page, and what the teacher wrote.
      # @param still_open [StillOpen] which knows of others, too, where several are asked about
      def self.told?(row, seat_id, still_open: StillOpen.new)
        OwnCopy.over?(row, seat_id) && (row.options.released || still_open.call(row).empty?)
      end

      # Whether the feedback of a sitting that is over tells anything now.
      def self.told_of?(sitting, row, seat_id)
        open = TakeSitting.task(row, seat_id).open
        Core::Session::Disclosure.in_sitting(sitting, nil, now: row.now, open: open, contested: true) != :nothing
      end
      private_class_method :told_of?

      private

      def share(record, seat_id) = Core::Analysis::Results.new(record).line_of(seat_id)&.share

      def notes(seat_id) = Store::Notes.new.of_seat(seat_id).transform_values(&:text).reject { |_, text| text.empty? }

      def pages(record, slides, seat_id)
        comments = Store::Comments.new.of([seat_id], told: true)
        notes = notes(seat_id)
        levels = Store::HandMarks.new.levels(record.id, seat_id, released: true)
        results = Core::Analysis::Results.new(record)
        drawn = Store::DrawnOn.new.of(record.id, seat_id, released: true)
        slides.map do |slide|
          level = slide.prompt ? yield(slide) : :nothing
          outcome = slide.prompt && record.outcome(slide.id, seat_id)
          Page.new(slide: slide, outcome: outcome, note: notes.fetch(slide.id, ""), level: level,
                   steps: steps(level, outcome) { results.why(slide.id, seat_id) },
                   hand: record.hand_mark(slide.id, seat_id), drawn_on: drawn[[slide.id, record.attempt(slide.id, seat_id)]],
                   rubric: (levels[slide.id] if slide.prompt&.rubric&.fits?(levels.fetch(slide.id, []))),
                   comment: comments[[seat_id, slide.id]]&.in_words(record.attempt(slide.id, seat_id)) || "").freeze
        end
      end

      # What would tell more than how it went: how much of the key somebody had.
      OF_THE_KEY = %i[hits_less_wrong right_of_all pairs_in_order].freeze
      private_constant :OF_THE_KEY

      # By which steps mark and points came about, as far as they may be told. Of an answer that came late, what it would have
      # earned tells more than how it went.
      def steps(level, outcome)
        return yield if level == :key
        return [] if level == :nothing || outcome.status == :late

        yield.reject { |step| OF_THE_KEY.include?(step.name) }
      end

      # What the teacher has marked and lets students see tells at least how it went; of a question with a key not while others
      # may still answer it.
      def level(row, record, sittings, slide, seat_id, contested)
        return :key if row.options.released

        told = told_anyhow(row, record, sittings, slide, seat_id, contested)
        seen = record.hand_mark(slide.id, seat_id) && !(contested && slide.prompt.keyed?)
        told == :nothing && seen ? :outcome : told
      end

      def told_anyhow(row, record, sittings, slide, seat_id, contested)
        sat = sittings.select { |kept| kept.sitting.slides.include?(slide.id) }.last
        return Core::Session::Disclosure.in_room(record.opening(slide.id), rules: record.rules, contested: contested) unless sat

        level = Core::Session::Disclosure.in_sitting(sat.sitting, record.outcome(slide.id, seat_id).answer, now: row.now,
                                                                                                            open: false,
                                                                                                            contested: contested)
        Core::Session::Disclosure.on_copy(level, contested: contested)
      end

      # What is told here settles every attempt that there was.
      def settle(sittings, seat_id, pages)
        told = pages.select(&:told?).map { |page| page.slide.id }
        sittings.each { |kept| Store::Tellings.new.note(seat_id, told & kept.sitting.slides, kept.sitting.attempt) }
      end

      def slides(row, seat_id, record)
        unless row.self_paced
          asked = record.asked_of(seat_id).map(&:id)
          return record.lesson.class_slides.select { |slide| slide.prompt.nil? || asked.include?(slide.id) }
        end

        sitting = Store::Sittings.new.latest_of_seat(seat_id).sitting
        given = record.lesson.prompts.select { |slide| record.answer(slide.id, seat_id) }.map(&:id) | sitting.slides
        record.lesson.class_slides.select { |slide| given.include?(slide.id) }
      end
    end
  end
end

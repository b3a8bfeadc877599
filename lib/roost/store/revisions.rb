# frozen_string_literal: true

module Roost
  module Store
    # The history of saves: each revision of a lesson holds the slides it changed, and the
    # head if that changed. What a lesson was at any time is put together from them.
    class Revisions < Repository
      # head::   Hash, nil when this revision left it as it was
      # slides:: Hash of slide id to document, the changed ones
      # step::   number of the first revision of its step; moved:: the other half of a move, or nil
      Row = Struct.new(:number, :head, :slides, :account_id, :author, :restored_from, :undoes, :redoes, :step, :moved,
                       :created_at, keyword_init: true)
      # Revisions that are undone together. head:: whether it changed; slides:: ids of those it changed
      Step = Struct.new(:first, :last, :head, :slides, :moved, keyword_init: true)

      # Saves of one field by one person are one step for this long, in seconds.
      STEP = 60
      # Steps on a page of the history.
      PAGE = 50
      # Own revisions that undo and redo look at.
      REMEMBERED = 2_000

      # @param head [Hash] with "slide_ids"
      # @param slides [Hash{String=>Hash}] documents by slide id; more than the lesson has do no harm
      # @return [Core::Lesson]
      def self.lesson(head, slides)
        order = head["slide_ids"]
        Core::Lesson.from_document(head.except("slide_ids").merge("slides" => order.map { |id| slides.fetch(id).to_h }))
      end

      # @param field [String, nil] what it changes, when that is one field
      # @param about [Hash] :restored_from (a number), :undoes, :redoes (steps), :moved
      def keep(lesson_id, number, head:, slides:, account_id:, field: nil, moved: nil, **about)
        database[:lesson_revisions].insert(lesson_id: lesson_id, number: number, account_id: account_id, field: field,
                                           step: step(lesson_id, number, account_id, field), **about,
                                           moved: moved && Sequel.pg_jsonb(moved), head: head && Sequel.pg_jsonb(head),
                                           slides: Sequel.pg_jsonb(slides))
      end

      # One page of the history: the last revision of each step, latest first.
      # @param before [Integer, nil] only steps before this number
      # @return [Array<Row>] one more than PAGE where there are older ones
      def of(lesson_id, before: nil)
        lasts = database[:lesson_revisions].where(lesson_id: lesson_id).group(:step).select(Sequel.function(:max, :number))
        lasts = lasts.where { number < before } if before
        with_author(lesson_id).where(number: lasts).reverse(:number).limit(PAGE + 1).map { |row| read(row) }
      end

      # @return [Row, nil]
      def find(lesson_id, number)
        row = with_author(lesson_id).where(number: number).first
        row && read(row)
      end

      # @return [Core::Lesson, nil] the lesson as that revision left it
      def lesson(lesson_id, number)
        head = head_at(lesson_id, number)
        head && Revisions.lesson(head, slides_at(lesson_id, number))
      end

      # @return [Hash, nil] the head as that revision left it
      def head_at(lesson_id, number)
        database[:lesson_revisions].where(lesson_id: lesson_id).where { |row| row.number <= number }.exclude(head: nil)
                                   .reverse(:number).get(:head)&.to_h
      end

      # This teacher's newest step that she has not undone: what Undo takes back next. The first
      # revision made the lesson and stays.
      # @return [Step, nil]
      def to_undo(account_id, lesson_id) = step_of(lesson_id, done_and_undone(account_id, lesson_id).first.last)

      # The step she undid last, unless she has changed anything since.
      # @return [Step, nil]
      def to_redo(account_id, lesson_id) = step_of(lesson_id, done_and_undone(account_id, lesson_id).last.last)

      # @param first [Integer, nil] number of its first revision
      # @return [Step, nil]
      def step_of(lesson_id, first)
        rows = first ? database[:lesson_revisions].where(lesson_id: lesson_id, step: first).order(:number).all : []
        return nil if rows.empty?

        Step.new(first: first, last: rows.last[:number], head: rows.any? { |row| row[:head] },
                 slides: rows.flat_map { |row| row[:slides].keys }.uniq, moved: rows.last[:moved]&.to_h).freeze
      end

      # @return [Core::Slide, nil] a slide as it was at one of its revs
      def slide_at(lesson_id, slide_id, rev)
        document = Sequel.pg_jsonb_op(:slides)[slide_id]
        row = database[:lesson_revisions].where(lesson_id: lesson_id).where(document.get_text("rev") => rev.to_s)
                                         .reverse(:number).select(document.as(:document)).first
        row && Core::Slide.from_document(row[:document].to_h)
      end

      # The revision that changed a slide last.
      # @return [Row, nil]
      def last_change(lesson_id, slide_id)
        row = with_author(lesson_id).where(Sequel.function(:jsonb_exists, :slides, slide_id)).reverse(:number).first
        row && read(row)
      end

      # @param rev [Integer, nil] the slide's, that somebody was looking at
      # @return [String, nil] name of the other who changed the slide last since then
      def colleague_since(lesson_id, slide_id, rev, account_id)
        since = Sequel.pg_jsonb_op(:slides)[slide_id].get_text("rev").cast(Integer)
        with_author(lesson_id).where(Sequel.function(:jsonb_exists, :slides, slide_id)).where { since > rev.to_i }
                              .exclude(account_id: account_id).exclude(Sequel[:accounts][:name] => nil)
                              .reverse(:number).get(Sequel[:accounts][:name])
      end

      # @param what [String, Symbol] id of a slide, or :head for title, sections and order
      # @param number [Integer] of a revision
      # @return [String, nil] name of the other who changed it last since then
      def colleague_after(lesson_id, what, number, account_id)
        touched = what == :head ? Sequel.~(head: nil) : Sequel.function(:jsonb_exists, :slides, what)
        with_author(lesson_id).where(touched).where { |row| row.number > number }.exclude(account_id: account_id)
                              .exclude(Sequel[:accounts][:name] => nil).reverse(:number).get(Sequel[:accounts][:name])
      end

      # Every slide there had ever been up to a revision, as that revision left it.
      # @return [Hash{String=>Hash}] documents by slide id
      def slides_at(lesson_id, number)
        database.fetch(<<~SQL, lesson_id, number).as_hash(:slide_id, :document)
          SELECT DISTINCT ON (slide_id) slide_id, document
          FROM lesson_revisions, jsonb_each(slides) AS changed(slide_id, document)
          WHERE lesson_id = ? AND number <= ? ORDER BY slide_id, number DESC
        SQL
      end

      private

      # A save goes on with the step before it when it changes the same field soon after.
      def step(lesson_id, number, account_id, field)
        return number unless field

        before = database[:lesson_revisions].where(lesson_id: lesson_id, number: number - 1, account_id: account_id,
                                                   field: field).get(:step)
        began = before && database[:lesson_revisions].where(lesson_id: lesson_id, number: before)
                                                     .where { created_at > Sequel.lit("now() - make_interval(secs => ?)", STEP) }
        began&.any? ? before : number
      end

      # A teacher's steps that stand, and those she has undone, each in the order in which it was done.
      # @return [Array(Array<Integer>, Array<Integer>)]
      def done_and_undone(account_id, lesson_id)
        rows = database[:lesson_revisions].where(lesson_id: lesson_id, account_id: account_id).where { number > 1 }
                                          .reverse(:number).limit(REMEMBERED).select(:step, :undoes, :redoes).all.reverse.uniq
        rows.each_with_object([[], []]) do |row, (done, undone)|
          if row[:undoes] then undone << row[:undoes] if done.delete(row[:undoes])
          elsif row[:redoes] then done << row[:redoes] if undone.delete(row[:redoes])
          else
            done << row[:step]
            undone.clear
          end
        end
      end

      def with_author(lesson_id)
        database[:lesson_revisions].where(lesson_id: lesson_id).left_join(:accounts, id: :account_id)
                                   .select_all(:lesson_revisions).select_append(Sequel[:accounts][:name].as(:author))
      end

      def read(row)
        Row.new(**row.slice(:number, :account_id, :author, :restored_from, :undoes, :redoes, :step),
                   moved: row[:moved]&.to_h, head: row[:head]&.to_h, slides: row[:slides].to_h,
                   created_at: row[:created_at]).freeze
      end
    end
  end
end

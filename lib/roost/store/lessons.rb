# frozen_string_literal: true

module Roost
  module Store
    # Lessons: a head (everything but the slides) and a row a slide. Every save leaves a
    # revision with what it changed. Every read names the account: a lesson that this
    # teacher may not see does not exist for her.
    class Lessons < Repository
      Row = Struct.new(:id, :lesson, :revision, :updated_at, :deleted, keyword_init: true)
      # A lesson of which only the head is read: enough for saving one slide.
      Head = Struct.new(:id, :slide_ids, :revision, :updated_at, :deleted, keyword_init: true)

      # @return [Array<Row>] latest first, without deleted ones
      def of(account_id) = read_all(own(account_id).where(deleted_at: nil).reverse(:updated_at))

      # @return [Array<Row>] those deleted that are not purged yet, latest first
      def deleted_lately(account_id)
        read_all(own(account_id).where { deleted_at > Sequel.lit("now() - make_interval(days => ?)", Roost.settings.purge_days) }
                               .reverse(:deleted_at))
      end

      # @return [Array<Array(Integer, String)>] id and title of those this teacher may edit, by title
      def titles(account_id)
        title = Sequel.lit("head->>'title'")
        editable(account_id).where(deleted_at: nil, archived_at: nil).order(Sequel.function(:lower, title))
                            .select_map([:id, title.as(:title)])
      end

      # @return [Row, nil] of a lesson this teacher may edit
      def find(account_id, id, lock: false) = read_all(locked(editable(account_id).where(id: id), lock)).first

      # @return [Row, nil] of a lesson this teacher may look at
      def look(account_id, id)
        read_all(Catalogue.new(database).visible(account_id).where(Sequel[:lessons][:id] => id, deleted_at: nil)).first
      end

      # @return [Head, nil] of a lesson this teacher may edit
      def head(account_id, id, lock: false)
        row = locked(editable(account_id).where(id: id), lock).first
        row && Head.new(id: row[:id], slide_ids: row[:head]["slide_ids"], revision: row[:revision],
                        updated_at: row[:updated_at], deleted: !row[:deleted_at].nil?).freeze
      end

      # Whether a slide is in a game round.
      def in_round?(lesson_id, slide_id)
        head = database[:lessons].where(id: lesson_id).get(:head).to_h
        layers = head["sections"].to_a.map { |document| Core::Section.from_document(document) }
        Core::Sections.new(layers, head["slide_ids"].to_a).of(slide_id)&.game? || false
      end

      # @return [Core::Slide, nil] one slide as it is now
      def slide(lesson_id, slide_id)
        document = database[:lesson_slides].where(lesson_id: lesson_id, slide_id: slide_id).get(:document)
        document && Core::Slide.from_document(document.to_h)
      end

      # @return [Integer] id
      def create(account_id, lesson)
        transaction do
          head = head_of(lesson)
          id = database[:lessons].insert(account_id: account_id, **columns(head))
          put_slides(id, lesson.slides)
          Revisions.new(database).keep(id, 1, head: head, slides: documents(lesson.slides), account_id: account_id)
          id
        end
      end

      # Saves a lesson over the row it came from, which must be locked, and leaves a revision.
      # @param about [Hash] see Revisions#keep
      # @return [Row]
      def save(account_id, row, lesson, **about)
        head = head_of(lesson)
        changed = lesson.slides.reject { |slide| row.lesson.slide(slide.id) == slide }
        put_slides(row.id, changed)
        gone = row.lesson.slides.map(&:id) - head["slide_ids"]
        database[:lesson_slides].where(lesson_id: row.id, slide_id: gone).delete
        saved = advance(account_id, row, changed, head: (head unless head == head_of(row.lesson)), **about)
        Row.new(id: row.id, lesson: lesson, revision: saved[:revision], updated_at: saved[:updated_at], deleted: false).freeze
      end

      # Saves one slide of a lesson whose head is locked, and leaves a revision.
      # @param head [Head]
      # @return [Head]
      # @param field [String, nil] see Revisions#keep
      def save_slide(account_id, head, slide, field: nil)
        put_slides(head.id, [slide])
        row = advance(account_id, head, [slide], field: field)
        Head.new(**head.to_h, revision: row[:revision], updated_at: row[:updated_at]).freeze
      end

      # @return [Boolean] false when there was nothing to delete or bring back
      def mark_deleted(account_id, id, deleted)
        stamp = deleted ? Sequel.function(:clock_timestamp) : nil
        own(account_id).where(id: id).update(deleted_at: stamp) == 1
      end

      # @return [Integer, nil] minutes that its slides for the class are planned to take; nil where nothing is
      def planned_minutes(lesson_id)
        planned = Sequel.lit("(document->>'minutes')::int")
        database[:lesson_slides].where(lesson_id: lesson_id).exclude(Sequel.lit("document->>'for_class' = 'false'")).sum(planned)
      end

      private

      def own(account_id) = database[:lessons].where(account_id: account_id)

      def editable(account_id)
        shared = database[:lesson_shares].where(account_id: account_id, may_edit: true).select(:lesson_id)
        database[:lessons].where(Sequel.|({ account_id: account_id }, { id: shared }))
      end

      def locked(dataset, lock) = lock ? dataset.for_update : dataset

      def head_of(lesson) = lesson.head.merge("slide_ids" => lesson.slides.map(&:id))

      def documents(slides) = slides.to_h { |slide| [slide.id, slide.to_document] }

      def columns(head)
        { head: Sequel.pg_jsonb(head), search: Sequel.function(:to_tsvector, "english", Catalogue.words(head)) }
      end

      def put_slides(lesson_id, slides)
        rows = slides.map do |slide|
          { lesson_id: lesson_id, slide_id: slide.id, document: Sequel.pg_jsonb(slide.to_document), **Catalogue.about(slide) }
        end
        newer = %i[document search asks unfinished].to_h { |name| [name, Sequel[:excluded][name]] }
        database[:lesson_slides].insert_conflict(target: %i[lesson_id slide_id], update: newer).multi_insert(rows)
      end

      def advance(account_id, from, slides, head: nil, **about)
        number = from.revision + 1
        Revisions.new(database).keep(from.id, number, head: head, slides: documents(slides), account_id: account_id, **about)
        changes = { revision: number, updated_at: Sequel.function(:clock_timestamp) }
        changes.merge!(columns(head)) if head
        database[:lessons].where(id: from.id, revision: from.revision).returning(:revision, :updated_at)
                          .update(changes).first || raise(Sequel::Rollback, "lesson #{from.id} is not locked")
      end

      def read_all(dataset)
        at_one_moment do
          rows = dataset.all
          slides = database[:lesson_slides].where(lesson_id: rows.map { |row| row[:id] })
                                           .select_hash_groups(:lesson_id, %i[slide_id document])
          rows.map { |row| read(row, slides.fetch(row[:id], []).to_h) }
        end
      end

      # Heads and slides belong together also while somebody saves. Within a transaction the head is locked.
      def at_one_moment(&block)
        database.in_transaction? ? yield : database.transaction(isolation: :repeatable, read_only: true, &block)
      end

      def read(row, slides)
        Row.new(id: row[:id], lesson: Revisions.lesson(row[:head].to_h, slides), revision: row[:revision],
                updated_at: row[:updated_at], deleted: !row[:deleted_at].nil?).freeze
      end
    end
  end
end

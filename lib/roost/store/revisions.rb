# frozen_string_literal: true

module Roost
  module Store
    # The history of saves: each revision of a lesson holds the slides it changed, and the
    # head if that changed. What a lesson was at any time is put together from them.
    class Revisions < Repository
      # head::   Hash, nil when this revision left it as it was
      # slides:: Hash of slide id to document, the changed ones
      Record = Struct.new(:number, :head, :slides, :account_id, :author, :restored_from, :undoes, :created_at,
                          keyword_init: true)

      # @param head [Hash] with "slide_ids"
      # @param slides [Hash{String=>Hash}] documents by slide id; more than the lesson has do no harm
      # @return [Core::Lesson]
      def self.lesson(head, slides)
        order = head["slide_ids"]
        Core::Lesson.from_document(head.except("slide_ids").merge("slides" => order.map { |id| slides.fetch(id).to_h }))
      end

      def keep(lesson_id, number, head:, slides:, account_id:, restored_from: nil, undoes: nil)
        database[:lesson_revisions].insert(lesson_id: lesson_id, number: number, account_id: account_id, undoes: undoes,
                                           restored_from: restored_from, head: head && Sequel.pg_jsonb(head),
                                           slides: Sequel.pg_jsonb(slides))
      end

      # @return [Array<Record>] latest first
      def of(lesson_id, most: 200) = with_author(lesson_id).reverse(:number).limit(most).map { |row| record(row) }

      # @return [Record, nil]
      def find(lesson_id, number)
        row = with_author(lesson_id).where(number: number).first
        row && record(row)
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

      # The newest change of this teacher that she has not undone: what Undo takes back next.
      # The first revision made the lesson and stays.
      # @return [Record, nil]
      def last_of(account_id, lesson_id)
        own = with_author(lesson_id).where(Sequel[:lesson_revisions][:account_id] => account_id)
        undone = own.exclude(undoes: nil).select(:undoes)
        row = own.where(undoes: nil).where { number > 1 }.exclude(number: undone).reverse(:number).first
        row && record(row)
      end

      # The revision that changed a slide last.
      # @return [Record, nil]
      def last_change(lesson_id, slide_id)
        row = with_author(lesson_id).where(Sequel.function(:jsonb_exists, :slides, slide_id)).reverse(:number).first
        row && record(row)
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

      def with_author(lesson_id)
        database[:lesson_revisions].where(lesson_id: lesson_id).left_join(:accounts, id: :account_id)
                                   .select_all(:lesson_revisions).select_append(Sequel[:accounts][:name].as(:author))
      end

      def record(row)
        Record.new(**row.slice(:number, :account_id, :author, :restored_from, :undoes),
                   created_at: row[:created_at], head: row[:head]&.to_h, slides: row[:slides].to_h).freeze
      end
    end
  end
end

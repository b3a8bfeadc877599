# frozen_string_literal: true

module Roost
  module Store
    # A teacher's question bank: slides with a question, to be put into any lesson.
    class Bank < Repository
      Row = Struct.new(:id, :slide, :taken_from, :created_at, keyword_init: true)

      PAGE = 60

      # @param slides [Array<Core::Slide>] with a prompt each
      # @param taken_from [String] title of the lesson
      # @return [Array<Integer>] ids
      def keep(account_id, slides, taken_from:)
        slides.map do |slide|
          database[:bank_questions].insert(
            account_id: account_id, document: Sequel.pg_jsonb(slide.to_document), taken_from: taken_from,
            search: Sequel.function(:to_tsvector, "english", slide.searchable),
            subtopics: Sequel.pg_array(slide.prompt.subtopics, :text), standards: Sequel.pg_array(slide.prompt.standards, :text)
          )
        end
      end

      # @param query [String] words, all of which the question has
      # @param subtopic [String] "" for any; standard likewise
      # @return [Array<Row>] latest first, at most PAGE
      def find(account_id, query: "", subtopic: "", standard: "")
        found = TextSearch.all(own(account_id), query) { |words| words }
        { subtopics: subtopic, standards: standard }.each do |column, value|
          found = found.where(Sequel.lit("? = ANY(?)", value, Sequel[column])) unless value.to_s.empty?
        end
        found.reverse(:id).limit(PAGE).map { |row| read(row) }
      end

      # @param ids [Array<Integer>]
      # @return [Array<Row>] in the order of the ids
      def take(account_id, ids)
        own(account_id).where(id: ids).map { |row| read(row) }.sort_by { |row| ids.index(row.id) }
      end

      # The tags there are in a teacher's bank.
      # @param column [Symbol] :subtopics or :standards
      def tags(account_id, column) = own(account_id).distinct.select_order_map(Sequel.function(:unnest, column).as(:tag))

      # @return [Integer] how many were taken out or brought back
      def mark_deleted(account_id, ids, deleted)
        database[:bank_questions].where(account_id: account_id, id: ids)
                                 .update(deleted_at: deleted ? Sequel.function(:clock_timestamp) : nil)
      end

      private

      def own(account_id) = database[:bank_questions].where(account_id: account_id, deleted_at: nil)

      def read(row)
        Row.new(id: row[:id], slide: Core::Slide.from_document(row[:document].to_h), taken_from: row[:taken_from],
                created_at: row[:created_at]).freeze
      end
    end
  end
end

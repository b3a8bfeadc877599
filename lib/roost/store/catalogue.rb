# frozen_string_literal: true

module Roost
  module Store
    # The list of lessons a teacher can see: her own, those shared with her, and those open
    # to all here; found by words, filtered, a page at a time. Reads no lesson whole.
    class Catalogue < Repository
      # role:: :owner, :edit or :view
      Entry = Struct.new(:id, :title, :details, :owner, :role, :slides, :questions, :unfinished, :cover, :starred, :shared,
                         :open_to_all, :archived, :updated_at, keyword_init: true)
      # What a filter takes, by its name in addresses.
      SHELVES = { "" => "All", "starred" => "Starred", "drafts" => "Not finished", "shared" => "Shared with me",
                  "open" => "Shared with all", "archived" => "Archived" }.freeze
      FIELDS = %w[subject level theme].freeze
      PAGE = 40

      # What a lesson's head has to be found by.
      # @param head [Hash]
      def self.words(head)
        details = head["details"] || {}
        [head["title"], *details.values_at("description", "subject", "level", "goal"), *details["vocabulary"]].compact.join("\n")
      end

      # What is kept beside a slide for lists and searching.
      # @return [Hash] columns of lesson_slides
      def self.about(slide)
        { search: Sequel.function(:to_tsvector, "english", slide.searchable), asks: !slide.prompt.nil?,
          unfinished: slide.problems.any? }
      end

      # @param query [String] words, all of which the lesson has somewhere
      # @param filters [Hash{String=>String}] "shelf" and any of FIELDS
      # @param page [Integer] from 1
      # @return [Array<Entry>] latest first, at most PAGE, and one more if there are more
      def find(account_id, query: "", filters: {}, page: 1)
        sought = !query.strip.empty? || FIELDS.any? { |field| !filters[field].to_s.empty? }
        found = filtered(searched(shelf(account_id, filters["shelf"], sought), query), filters)
        rows = found.reverse(Sequel[:lessons][:updated_at], Sequel[:lessons][:id]).limit(PAGE + 1).offset((page - 1) * PAGE)
                    .left_join(:accounts, id: Sequel[:lessons][:account_id])
                    .select_all(:lessons).select_append(Sequel[:accounts][:name].as(:owner)).all
        entries(account_id, rows)
      end

      # @return [Entry, nil] of one lesson that this teacher may see
      def entry(account_id, id)
        rows = visible(account_id).where(Sequel[:lessons][:id] => id, deleted_at: nil)
                                  .left_join(:accounts, id: Sequel[:lessons][:account_id])
                                  .select_all(:lessons).select_append(Sequel[:accounts][:name].as(:owner)).all
        entries(account_id, rows).first
      end

      # The values of a field in the lessons this teacher can see, for choosing from.
      # @param field [String] one of FIELDS
      # @return [Array<String>]
      def values(account_id, field)
        value = Sequel.lit("head->'details'->>?", field)
        visible(account_id).where(deleted_at: nil).distinct.select_order_map(value.as(:value)).compact - [""]
      end

      # @return [Sequel::Dataset] the lessons this teacher may look at
      def visible(account_id)
        mine = { Sequel[:lessons][:account_id] => account_id }
        database[:lessons].where(Sequel.|(mine, among(:lesson_shares, account_id: account_id), :open_to_all))
      end

      private

      # @param sought [Boolean] whether something is looked for: then among everything one may see
      def shelf(account_id, name, sought)
        all = visible(account_id).where(deleted_at: nil)
        mine = { Sequel[:lessons][:account_id] => account_id }
        return all.where(mine).exclude(archived_at: nil) if name == "archived"

        all = all.where(Sequel.|({ archived_at: nil }, Sequel.~(mine)))
        case name
        when "starred" then all.where(among(:lesson_stars, account_id: account_id))
        when "drafts" then all.where(mine).where(among(:lesson_slides, unfinished: true))
        when "shared" then all.where(among(:lesson_shares, account_id: account_id))
        when "open" then all.where(:open_to_all)
        else sought ? all : all.where(Sequel.|(mine, among(:lesson_shares, account_id: account_id)))
        end
      end

      # The condition that a lesson is named in a table.
      def among(table, **which) = { Sequel[:lessons][:id] => database[table].where(which).select(:lesson_id) }

      # Every word may stand in another part of the lesson, or be in its owner's name.
      def searched(dataset, query)
        TextSearch.all(dataset, query) do |words, term|
          inside = database[:lesson_slides].where(words).select(:lesson_id)
          owners = database[:accounts].where(Sequel.lit("name ~* ?", "\\m#{Regexp.escape(term)}")).select(:id)
          Sequel.|(words, { Sequel[:lessons][:id] => inside }, { Sequel[:lessons][:account_id] => owners })
        end
      end

      def filtered(dataset, filters)
        FIELDS.reduce(dataset) do |found, field|
          value = filters[field].to_s
          value.empty? ? found : found.where(Sequel.lit("head->'details'->>?", field) => value)
        end
      end

      def entries(account_id, rows)
        ids = rows.map { |row| row[:id] }
        counts = counts(ids)
        covers = covers(ids)
        stars = database[:lesson_stars].where(account_id: account_id, lesson_id: ids).select_map(:lesson_id)
        shares = database[:lesson_shares].where(lesson_id: ids).select_hash_groups(:lesson_id, %i[account_id may_edit])
        rows.map do |row|
          sharing = shares.fetch(row[:id], [])
          head = row[:head].to_h
          Entry.new(id: row[:id], title: head["title"], details: Core::Details.from_document(head["details"]), owner: row[:owner],
                    role: role(account_id, row, sharing), **counts.fetch(row[:id], { slides: 0, questions: 0, unfinished: 0 }),
                    cover: covers[row[:id]], starred: stars.include?(row[:id]), shared: sharing.any?,
                    open_to_all: row[:open_to_all], archived: !row[:archived_at].nil?, updated_at: row[:updated_at]).freeze
        end
      end

      def role(account_id, row, sharing)
        return :owner if row[:account_id] == account_id

        sharing.include?([account_id, true]) ? :edit : :view
      end

      def counts(ids)
        database[:lesson_slides].where(lesson_id: ids).group(:lesson_id)
                                .select(:lesson_id, Sequel.function(:count).*.as(:slides),
                                        Sequel.function(:count).*.filter(:asks).as(:questions),
                                        Sequel.function(:count).*.filter(:unfinished).as(:unfinished))
                                .to_h { |row| [row.delete(:lesson_id), row] }
      end

      # The first picture of each lesson.
      def covers(ids)
        return {} if ids.empty?

        database.fetch(<<~SQL, ids).to_h { |row| [row[:lesson_id], row[:picture] && Core::Picture.from_document(row[:picture].to_h)] }
          SELECT DISTINCT ON (lesson_id) lesson_id, document->'pictures'->0 AS picture
          FROM lesson_slides JOIN lessons ON lessons.id = lesson_id,
               jsonb_array_elements_text(head->'slide_ids') WITH ORDINALITY AS place(slide, number)
          WHERE lesson_id IN ? AND slide = slide_id AND document->'pictures'->0 IS NOT NULL
          ORDER BY lesson_id, number
        SQL
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # Pairs items of two lists, each a text, a picture or both; extra items may stand on the
        # right. Items on the right that are alike are one, so that several on the left can belong
        # to it. Can be played as pairs lying face down, on the device. A value is
        # {"pairs" => {left id => right id}, "tries" => how often two cards were turned, or nil}.
        class Prompt < Core::Prompt
          Item = Struct.new(:id, :letter, :text, :picture, keyword_init: true) do
            # What it is called where no picture can be shown.
            def name = text.empty? ? picture&.alt.to_s : text

            def blank? = text.empty? && picture.nil?
          end
          ROWS = (2..12)
          ITEM_LIMIT = 120

          def self.label = "Match"
          def self.place = 8
          def self.purpose = "Pair items of two lists"
          def self.charted? = true
          def self.keyable? = true
          def self.on_the_spot = {}

          def self.blank
            { "rows" => Rows.of([["", ""]] * 3), "made" => 3, "keys" => {}, "game" => false }
          end

          def instruction = game? ? "Turn cards over and find the pairs" : "Find what belongs together"

          # The same question with other pairs taken for right.
          # @param changed [Hash, nil] left id to right id; what is not known is left out
          def with_keys(changed)
            wanted = changed.is_a?(Hash) ? settings["keys"].merge(changed) : settings["keys"]
            ids = right_items.map(&:id)
            kept = wanted.select { |left, right| keys.key?(left) && ids.include?(right) && own(left) != right }
            with_settings("keys" => kept)
          end

          def problems
            items = lefts.map { |item| [item.text, item.picture&.file] }
            [("fewer than two pairs" if lefts.count { |item| !item.blank? } < 2),
             ("an item is empty" if lefts.any?(&:blank?) || rights.any?(&:blank?)),
             ("two items on the left are the same" if items.reject { |item| item == ["", nil] }.uniq!)].compact
          end

          def keyed? = !settings["poll"]

          def shape = settings["rows"].map { |row| [row["id"], row["extra"]] }.sort_by(&:first)

          def pictured? = true

          def shuffle? = true

          # Whether it is played as pairs lying face down.
          def game? = settings["game"]

          # lefts:: [Item] to be paired, as written
          # right_items:: [Item] on the right without their like, extras included
          # keys:: left id to the id of the item on the right that is right
          attr_reader :lefts, :right_items, :keys

          # The items on the right as a seat gets them: by what they are, not by how they were written.
          # @param order [Integer, nil] which of the orders; nil for a preview
          def ordered_rights(order) = mixed(right_items.map { |item| [item.id, item] }, order).map(&:last)

          # The cards of the game: two a pair, face down.
          # @return [Array<Array(String, Item)>] the id of the card and its item
          def cards(order)
            rows = settings["rows"].reject { |row| row["extra"] }
            mixed(rows.flat_map { |row| [["#{row["id"]}a", item(row, "left")], ["#{row["id"]}b", item(row, "right")]] }, order)
          end

          # Of the cards in the game which ones are found in a value.
          def found?(card, value) = value["pairs"].key?(card[0..-2])

          # In a form an item on the left is its row's id with "a", one on the right with "b".
          def part_ids = settings["rows"].flat_map { |row| ["#{row["id"]}a", "#{row["id"]}b"] }

          # @param value [Hash, nil]
          # @return [Hash{String=>String}] its pairs as they stand in a form
          def form_pairs(value) = value ? value["pairs"].to_h { |left, right| ["#{left}a", "#{right}b"] } : {}

          # The item on the right that stands beside one on the left.
          def own(left_id)
            written = rights.find { |item| item.id == left_id }
            right_items.find { |item| [item.text, item.picture&.file] == [written.text, written.picture&.file] }.id
          end

          def to_read = (lefts + right_items).map(&:text)

          def searchable = super + (lefts + rights).map(&:name)

          # The items that there are, extras among them.
          # @return [Array<String>] ids as in #part_ids
          def item_ids = lefts.map { |item| "#{item.id}a" } + rights.map { |item| "#{item.id}b" }

          # @param item_id [String] one of #item_ids
          # @return [Picture, nil]
          def picture_on(item_id)
            row = settings["rows"].find { |each| each["id"] == item_id[0..-2] }
            picture(row, Rows.side(item_id))
          end

          def pictures = item_ids.filter_map { |item_id| picture_on(item_id) }

          private

          def picture(row, side) = Picture.from_document(row["#{side}_picture"])

          # @param things [Array<Array(String, Item)>] with an id
          def mixed(things, order)
            things.sort_by { |_, item| [item.text, item.picture&.file.to_s] }.shuffle(random: Random.new(order || 0))
          end

          attr_reader :rights

          def prepare
            @rights = settings["rows"].map { |row| item(row, "right") }.freeze
            @right_items = rights.uniq { |item| [item.text, item.picture&.file] }.freeze
            @lefts = settings["rows"].reject { |row| row["extra"] }.map { |row| item(row, "left") }.freeze
            @keys = lefts.to_h { |item| [item.id, settings["keys"][item.id] || own(item.id)] }.freeze
          end

          def item(row, side)
            place = settings["rows"].index(row)
            Item.new(id: row["id"], letter: ("A".ord + place).chr, text: row[side], picture: picture(row, side)).freeze
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Pairs items of two lists, each a text, a picture or both; extra items may stand on the
      # right. Items on the right that are alike are one, so that several on the left can belong
      # to it. Can be played as pairs lying face down, on the device. A value is
      # {"pairs" => {left id => right id}, "tries" => how often two cards were turned, or nil}.
      class Match < Prompt
        Item = Struct.new(:id, :letter, :text, :picture, keyword_init: true) do
          # What it is called where no picture can be shown.
          def name = text.empty? ? picture&.alt.to_s : text

          def blank? = text.empty? && picture.nil?
        end
        # key:: Item it belongs to; counts:: right id to how many put it there; wrong:: the
        # commonest wrong Item with its count, or nil
        Row = Struct.new(:item, :key, :counts, :right, :wrong, keyword_init: true)
        # columns:: the items on the right; tries:: their median where it was played, or nil;
        # pairs, wholes:: Tallies::Count of [left, right] and of all pairs together
        Tally = Struct.new(:rows, :columns, :answered, :right, :tries, :pairs, :wholes, keyword_init: true)

        ROWS = (2..12)
        ITEM_LIMIT = 120
        MOST_TRIES = 1000
        MOST_BYTES = 2000
        UNREADABLE = Reading.refused("Those pairs could not be read. Reload the page and pair them again.")

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

        # @param form [Hash] "row_ids", "lefts" and "rights" side by side, "alts" by item id,
        #   "game", "keys" (left id to right id), and "do" => "add", "extra", "remove:ID",
        #   "earlier:ID" or "unpicture:ITEM"
        def edited(form)
          read_common(form).and_then do |common|
            Rows.read(settings["rows"], form).map do |rows|
              game = form.key?("game") ? form["game"] == "1" : game?
              changed = with_settings(common.merge(Rows.arranged(rows, settings["made"], form["do"].to_s)).merge("game" => game))
              changed.with_keys(form["keys"])
            end
          end
        end

        # The same question with other pairs taken for right.
        # @param changed [Hash, nil] left id to right id; what is not known is left out
        def with_keys(changed)
          wanted = changed.is_a?(Hash) ? settings["keys"].merge(changed) : settings["keys"]
          ids = right_items.map(&:id)
          kept = wanted.select { |left, right| keys.key?(left) && ids.include?(right) && own(left) != right }
          with_settings("keys" => kept)
        end

        # The same question with a picture on one item.
        # @param item_id [String] as in #row_slots
        # @return [Reading]
        def picturing(item_id, picture)
          return Reading.refused("That item is gone. Reload the page.") unless row_slots.value?(item_id)

          Reading.ok(with_settings("rows" => settings["rows"].map do |row|
            item_id[0..-2] == row["id"] ? row.merge("#{Rows.side(item_id)}_picture" => picture.to_document) : row
          end))
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

        def turned(cards, names)
          return nil unless game? && cards.length == 2

          left, right = cards.map { |card| names.item(card).to_s }.sort_by { |card| card[-1].to_s }
          row = left[0..-2]
          [names.of(left), names.of("#{own(row)}b")] if left == "#{row}a" && right == "#{row}b" && keys.key?(row)
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

        def words = (lefts + right_items).sum { |item| Text.words(item.text) }

        def searchable = super + (lefts + rights).map(&:name)

        def row_options = SheetRow.options(settings["rows"])

        def row_slots = SheetRow.slots(settings["rows"])

        def row_pictures
          row_slots.transform_values { |item_id| picture(row(item_id), Rows.side(item_id)) }.compact
        end

        def rules = game? ? ["face down"] : []

        def self.from_row(...) = SheetRow.read(...)

        # @param raw [Hash] "pairs" holds them as JSON text ({"m1a": "m3b"}), "tries" a number
        def read(raw, names = Room::Handles::PLAIN)
          pairs = parsed(field(raw, "pairs").to_s, most: MOST_BYTES)
          pairs = {} if pairs == []
          return UNREADABLE unless pairs.is_a?(Hash)

          pairs = pairs.to_h { |left, right| [row_of_item(names.item(left), "a"), row_of_item(names.item(right), "b")] }
          return UNREADABLE unless (pairs.keys - keys.keys).empty?
          return UNREADABLE unless (pairs.values - right_items.map(&:id)).empty?

          tries = Integer(field(raw, "tries").to_s, 10, exception: false)
          Reading.ok({ "pairs" => pairs, "tries" => (tries.clamp(0, MOST_TRIES) if tries && game?) })
        end

        def blank_answer?(value) = value["pairs"].empty?

        def missing = "Pair something first."

        # rules.md, marks: right pairs / pairs asked.
        def mark(value)
          return nil unless keyed?

          Rational(keys.count { |left, right| value["pairs"][left] == right }, [keys.length, 1].max)
        end

        def gathered(values, before: nil, **)
          pairs = Tallies::Count.new(values, before: before&.pairs) { |value| value["pairs"].to_a }
          wholes = Tallies::Count.new(values, before: before&.wholes) { |value| [value["pairs"]] }
          tries = values.each_value.filter_map { |value| value["tries"] unless blank_answer?(value) }
          Tally.new(rows: rows(pairs), columns: right_items, answered: pairs.answered, tries: median(tries),
                    right: wholes.of(keys), pairs: pairs, wholes: wholes).freeze
        end

        def plain(value)
          rights = right_items.to_h { |item| [item.id, item.name] }
          pairs = lefts.map { |item| "#{item.name} – #{rights.fetch(value["pairs"][item.id], "?")}" }.join("; ")
          value["tries"] ? "#{pairs} (#{value["tries"]} tries)" : pairs
        end

        # Each pair by itself: known, or guessed. Played, all are found sooner or later.
        def imagine(student, random)
          rights = right_items
          return { "pairs" => keys, "tries" => keys.length + random.rand(keys.length * 2) } if game?

          pairs = keys.to_h do |left, right|
            known = student.knows?(settings["difficulty"] || 0.0, chance: 1.0 / rights.length, random: random)
            [left, known ? right : rights[random.rand(rights.length)].id]
          end
          { "pairs" => pairs, "tries" => nil }
        end

        private

        def row_of_item(item_id, side)
          item_id.delete_suffix(side) if item_id.is_a?(String) && item_id.end_with?(side)
        end

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

        def row(item_id) = settings["rows"].find { |row| row["id"] == item_id[0..-2] }

        def picture(row, side) = Picture.from_document(row["#{side}_picture"])

        # @param pairs [Tallies::Count] of [left, right]
        def rows(pairs)
          by_left = pairs.to_h.group_by { |(left, _right), _count| left }
          lefts.map do |item|
            row_of(item, keys[item.id], by_left.fetch(item.id, []).to_h { |(_left, right), count| [right, count] })
          end
        end

        # @param counts [Hash{String=>Integer}] id of a right item to how often it was chosen
        def row_of(item, key, counts)
          wrong = counts.except(key).max_by { |right, count| [count, -right_items.index { |column| column.id == right }] }
          find = ->(right_id) { right_items.find { |column| column.id == right_id } }
          Row.new(item: item, key: find.call(key), counts: counts, right: counts.fetch(key, 0),
                  wrong: wrong && [find.call(wrong.first), wrong.last]).freeze
        end

        def median(numbers) = Tallies::Spread.of(numbers.map(&:to_r))&.median
      end
    end
  end
end

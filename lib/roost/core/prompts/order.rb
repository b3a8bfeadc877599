# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      # Puts items into sequence, one under the other or along a line. The order in which the
      # teacher wrote them is the key; each seat gets them in another. A value is
      # {"order" => [ids]}.
      class Order < Prompt
        Item = Struct.new(:id, :text, keyword_init: true)
        # place:: mean position from 1, nil when nobody answered; counts:: how many put it at
        # each position; right:: how many put it at its own
        Row = Struct.new(:item, :place, :counts, :right, keyword_init: true)
        # places, orders:: Tallies::Count of [item, place] and of whole orders
        Tally = Struct.new(:rows, :answered, :right, :places, :orders, keyword_init: true)

        ITEMS = (2..12)
        ITEM_LIMIT = 120
        MOST_BYTES = 400
        UNREADABLE = Reading.refused("That order could not be read. Reload the page and sort again.")

        def self.label = "Order"
        def self.place = 9
        def self.purpose = "Put items into sequence"
        def self.charted? = true
        def self.keyable? = true
        def self.on_the_spot = {}

        def self.blank
          { "items" => items([""] * 4), "made" => 4, "along" => false, "partial" => true }
        end

        def self.items(texts) = texts.each_with_index.map { |text, place| { "id" => "i#{place + 1}", "text" => text } }

        def instruction = along? ? "Put them along the line" : "Put them in order"

        # @param form [Hash] "item_ids" and "item_texts" side by side, "order" (ids with commas
        #   between), "along", "partial", and "do" => "add", "remove:ID" or "earlier:ID"
        def edited(form)
          read_common(form).and_then do |common|
            read_items(form).map do |items|
              ticks = %w[along partial].to_h { |name| [name, form.fetch(name, settings[name] ? "1" : "0") == "1"] }
              with_settings(common.merge(arranged(in_order(items, form["order"]), form["do"].to_s), ticks))
            end
          end
        end

        def problems
          texts = items.map(&:text)
          [("fewer than two items" if texts.reject(&:empty?).length < 2), ("an item is empty" if texts.any?(&:empty?)),
           ("two items are the same" if texts.reject(&:empty?).uniq!)].compact
        end

        # What is written is the key.
        def keyed? = !settings["poll"]

        def shape = items.map(&:id).sort

        def along? = settings["along"]

        def partial? = settings["partial"]

        def shuffle? = true

        def items = settings["items"].map { |item| Item.new(id: item["id"], text: item["text"]).freeze }

        # The items as a seat gets them. It depends on what they are, not on how they were written:
        # so it may be the right order, as often as chance has it.
        # @param order [Integer, nil] which of the orders; nil for a preview
        def ordered_items(order) = items.sort_by(&:text).shuffle(random: Random.new(order || 0))

        def part_ids = items.map(&:id)

        # The items in the order of a value.
        def sorted(value) = items.sort_by { |item| value["order"].index(item.id) }

        def words = items.sum { |item| Text.words(item.text) }

        def searchable = super + items.map(&:text)

        def row_options = items.map(&:text)

        def rules
          [("along a line" if along?), (partial? ? "part marks" : "all or nothing"),
           ("#{items.length} items" if items.last.text.empty?)].compact
        end

        def self.from_row(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
          number = rules.match(/\A(\d+) items\z/)&.[](1).to_i.clamp(0, ITEMS.max)
          texts = options[0...[(options.rindex { |text| !text.empty? } || 0) + 1, number].max]
          return Reading.refused("it has fewer than two items") if texts.length < 2

          list = items(texts)
          new(id: id, settings: { "items" => list, "made" => list.length })
            .edited(common.merge("along" => rules.include?("along a line") ? "1" : "0",
                                 "partial" => rules.include?("all or nothing") ? "0" : "1"))
        end

        # @param raw [Hash] "order" holds the ids with commas between
        def read(raw, names = Room::Handles::PLAIN)
          text = field(raw, "order").to_s
          return UNREADABLE if text.bytesize > MOST_BYTES || !text.valid_encoding?

          ids = text.split(",", -1).map { |name| names.item(name) }
          return Reading.ok({ "order" => [] }) if ids.empty?

          ids.all? && ids.sort == items.map(&:id).sort ? Reading.ok({ "order" => ids }) : UNREADABLE
        end

        def blank_answer?(value) = value["order"].empty?

        # rules.md, marks: exact, or the share of item pairs in the right relative order (Kendall).
        def mark(value)
          return nil unless keyed?

          places = items.map { |item| value["order"].index(item.id) }
          pairs = places.combination(2).to_a
          right = pairs.count { |one, other| one < other }
          if partial?
            Rational(right, pairs.length)
          else
            Rational(right == pairs.length ? 1 : 0)
          end
        end

        def gathered(values, before: nil, **)
          places = Tallies::Count.new(values, before: before&.places) { |value| value["order"].each_with_index.to_a }
          orders = Tallies::Count.new(values, before: before&.orders) { |value| [value["order"]] }
          Tally.new(rows: items.each_with_index.map { |item, own| row(item, own, places) }, answered: places.answered,
                    right: (orders.of(items.map(&:id)) if keyed?), places: places, orders: orders).freeze
        end

        def plain(value) = blank_answer?(value) ? "" : sorted(value).map(&:text).join(" > ")

        # Right, or with neighbours exchanged: the less able, the more often.
        def imagine(student, random)
          ids = items.map(&:id)
          return { "order" => ids } if student.knows?(settings["difficulty"] || 0.0, chance: 0.0, random: random)

          (1 + random.rand(ids.length)).times do
            place = random.rand(ids.length - 1)
            ids[place], ids[place + 1] = ids[place + 1], ids[place]
          end
          { "order" => ids }
        end

        private

        # @param own [Integer] its place in the right order, from 0
        # @param places [Tallies::Count] of [item, place]
        def row(item, own, places)
          counts = Array.new(items.length) { |place| places.of([item.id, place]) }
          sum = counts.each_with_index.sum { |count, place| (place + 1) * count }
          Row.new(item: item, counts: counts, right: counts[own],
                  place: (Rational(sum, places.answered) if places.answered.positive?)).freeze
        end

        def read_items(form)
          return Reading.ok(settings["items"]) unless form["item_ids"]

          ids = Array(form["item_ids"]).map(&:to_s)
          known = settings["items"].map { |item| item["id"] }
          return Reading.refused("These items have changed meanwhile. Reload the page.") unless (ids - known).empty?

          readings = ids.zip(Array(form["item_texts"])).map do |item_id, text|
            Text.read(text, limit: ITEM_LIMIT, what: "An item", lines: false).map { |words| { "id" => item_id, "text" => words } }
          end
          readings.find { |reading| !reading.ok? } || Reading.ok(readings.map(&:value))
        end

        def in_order(items, order)
          ids = order.to_s.split(",")
          ids.sort == items.map { |item| item["id"] }.sort ? items.sort_by { |item| ids.index(item["id"]) } : items
        end

        def arranged(items, action)
          made = settings["made"]
          verb, item_id = action.split(":", 2)
          place = items.index { |item| item["id"] == item_id }
          if verb == "add" && items.length < ITEMS.max
            made += 1
            items += [{ "id" => "i#{made}", "text" => "" }]
          elsif verb == "remove" && place && items.length > ITEMS.min
            items = items.reject { |item| item["id"] == item_id }
          elsif verb == "earlier" && place
            items = items.dup.tap { |list| list.insert([place - 1, 0].max, list.delete_at(place)) }
          end
          { "items" => items, "made" => made }
        end
      end
    end
  end
end

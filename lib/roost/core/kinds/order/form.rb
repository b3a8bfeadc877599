# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Order
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          ITEM_LIMIT = 120

          of_prompt :settings, :with_settings

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

          private

          def read_items(form)
            return Reading.ok(settings["items"]) unless form["item_ids"]

            ids = Array(form["item_ids"]).map(&:to_s)
            known = settings["items"].map { |item| item["id"] }
            return Reading.refused("These items have changed meanwhile. Reload the page.") unless (ids - known).empty?

            readings = ids.zip(Array(form["item_texts"])).map do |item_id, text|
              Text.read(text, limit: ITEM_LIMIT, what: "An item", lines: false).map do |words|
                { "id" => item_id, "text" => words }
              end
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
            if verb == "add" && items.length < Prompt::ITEMS.max
              made += 1
              items += [{ "id" => "i#{made}", "text" => "" }]
            elsif verb == "remove" && place && items.length > Prompt::ITEMS.min
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
end

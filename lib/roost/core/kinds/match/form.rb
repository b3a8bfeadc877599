# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          of_prompt :settings, :game?, :with_settings, :item_ids

          # @param form [Hash] "row_ids", "lefts" and "rights" side by side, "alts" by item id,
          #   "game", "keys" (left id to right id), and "do" => "add", "extra", "remove:ID",
          #   "earlier:ID" or "unpicture:ITEM"
          def edited(form)
            read_common(form).and_then do |common|
              Rows.read(settings["rows"], form).map do |rows|
                game = form.key?("game") ? form["game"] == "1" : game?
                changed = with_settings(common.merge(Rows.arranged(rows, settings["made"],
                                                                   form["do"].to_s)).merge("game" => game))
                changed.with_keys(form["keys"])
              end
            end
          end

          # The same question with a picture on one item.
          # @param item_id [String] one of the prompt's #item_ids
          # @return [Reading]
          def picturing(item_id, picture)
            return Reading.refused("That item is gone. Reload the page.") unless item_ids.include?(item_id)

            Reading.ok(with_settings("rows" => settings["rows"].map do |row|
              item_id[0..-2] == row["id"] ? row.merge("#{Rows.side(item_id)}_picture" => picture.to_document) : row
            end))
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Match
        # The rows of a match as they stand in its settings, and as the builder changes them.
        # An item's id is its row's with "a" (left) or "b" (right).
        module Rows
          # @param pairs [Array<Array(String, String)>] with nil on the left for an item too many
          def self.of(pairs)
            pairs.each_with_index.map do |(left, right), place|
              { "id" => "m#{place + 1}", "left" => left.to_s, "right" => right, "extra" => left.nil? }
            end
          end

          def self.side(item_id) = item_id.end_with?("a") ? "left" : "right"

          # @param form [Hash] "row_ids", "lefts" and "rights" side by side, "alts" by item id
          # @return [Reading] of the rows with what the form says
          def self.read(rows, form)
            return Reading.ok(rows) unless form["row_ids"]

            known = rows.to_h { |row| [row["id"], row] }
            found = Array(form["row_ids"]).map { |row_id| known[row_id.to_s] }
            return Reading.refused("These items have changed meanwhile. Reload the page.") unless found.all?

            alts = form["alts"].is_a?(Hash) ? form["alts"] : {}
            texts = Array(form["lefts"]).zip(Array(form["rights"]))
            readings = found.zip(texts).map { |row, both| read_row(row, both.to_a, alts) }
            readings.find { |reading| !reading.ok? } || Reading.ok(readings.map(&:value))
          end

          # @param made [Integer] how many rows were ever made
          # @param action [String] "add", "extra", "remove:ID", "earlier:ID" or "unpicture:ITEM"
          # @return [Hash] of "rows" and "made"
          def self.arranged(rows, made, action)
            verb, item_id = action.split(":", 2)
            place = rows.index { |row| [row["id"], "#{row["id"]}a", "#{row["id"]}b"].include?(item_id) }
            if %w[add extra].include?(verb) && rows.length < Prompt::ROWS.max
              made += 1
              rows += [{ "id" => "m#{made}", "left" => "", "right" => "", "extra" => verb == "extra" }]
            elsif place
              rows = rearranged(rows.dup, place, verb, item_id)
            end
            { "rows" => rows, "made" => made }
          end

          class << self
            private

            def read_row(row, texts, alts)
              %w[left right].zip(texts).reduce(Reading.ok(row)) do |so_far, (side, text)|
                so_far.and_then do |changed|
                  Text.read(text, limit: Prompt::ITEM_LIMIT, what: "An item", lines: false).and_then do |words|
                    read_alt(changed.merge(side => words), side, alts)
                  end
                end
              end
            end

            def read_alt(row, side, alts)
              picture = row["#{side}_picture"]
              alt = alts["#{row["id"]}#{side == "left" ? "a" : "b"}"]
              return Reading.ok(row) unless picture && alt

              Text.read(alt, limit: Picture::ALT_LIMIT, what: "A picture's description", lines: false)
                  .map { |said| row.merge("#{side}_picture" => picture.merge("alt" => said)) }
            end

            def rearranged(rows, place, verb, item_id)
              case verb
              when "remove" then rows.delete_at(place) if rows.length > Prompt::ROWS.min
              when "earlier" then rows.insert([place - 1, 0].max, rows.delete_at(place))
              when "unpicture" then rows[place] = rows[place].except("#{side(item_id)}_picture")
              end
              rows
            end
          end
        end
      end
    end
  end
end

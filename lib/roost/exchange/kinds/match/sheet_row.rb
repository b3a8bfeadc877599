# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Match
        # Pairs as a row of a sheet of questions, both ways: "Heron = fish" in one column, "bread" alone (or
        # "= bread") for an item too many on the right. An item that is empty, or has an = or a quote in it,
        # stands in quotes, a quote in it doubled.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "options" => "pairs like Heron = fish, and frogs alone for one that is too many",
                        "rules" => "face down" }.freeze
          PAIR = /\A(?:(?<quoted>#{RowRules::QUOTED})\s*=\s*|(?<plain>.*?)\s*=(?:\s+|\z))(?<right>.*)\z/m

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            texts = options[0..(options.rindex { |text| !text.empty? } || 0)]
            pairs = texts.map { |text| pair(text) }
            return Core::Reading.refused("a pair needs “=” between its items, like Heron = fish") unless pairs.all?
            return Core::Reading.refused("it has fewer than two pairs") if pairs.count(&:first) < 2

            kind.new(id: id, settings: { "rows" => Core::Kinds::Match::Rows.of(pairs), "made" => pairs.length })
                .edited(common.merge("game" => rules.include?("face down") ? "1" : "0"))
          end

          # @return [Array(String, String), nil] nil on the left for an item too many
          def self.pair(text)
            return [nil, RowRules.unquote(text)] if text.match?(/\A#{RowRules::QUOTED}\z/o)

            found = text.match(PAIR)
            return text.empty? ? nil : [nil, text] unless found

            left = found[:quoted] ? RowRules.unquote(found[:quoted]) : found[:plain]
            [(left if found[:quoted] || !left.empty?), RowRules.unquote(found[:right])]
          end
          private_class_method :pair

          def options
            rows.map { |row| row["extra"] ? left(row["right"]) : "#{left(row["left"])} = #{quoted(row["right"])}" }
          end

          def slots
            rows.each_with_index.flat_map do |row, place|
              letter = ("A".ord + place).chr
              [([letter, "#{row["id"]}a"] unless row["extra"]), ["#{letter} right", "#{row["id"]}b"]].compact
            end.to_h
          end

          def pictures = slots.transform_values { |item_id| prompt.picture_on(item_id) }.compact

          def rules = true_of("face down" => prompt.game?)

          private

          def rows = prompt.settings["rows"]

          def left(text) = text.empty? ? RowRules.quote(text) : quoted(text)

          def quoted(text) = text.match?(/[="]/) ? RowRules.quote(text) : text
        end
      end
    end
  end
end

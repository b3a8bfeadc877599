# frozen_string_literal: true

module Roost
  module Core
    module Prompts
      class Match
        # Pairs as a row of a sheet of questions (exchange/question_row.rb), both ways:
        # "Heron = fish" in one column, "bread" alone (or "= bread") for an item too many on the right. An
        # item that is empty, or has an = or a quote in it, stands in quotes, a quote in it doubled.
        module SheetRow
          PAIR = /\A(?:(?<quoted>#{RowRules::QUOTED})\s*=\s*|(?<plain>.*?)\s*=(?:\s+|\z))(?<right>.*)\z/m

          # @return [Reading] of a Match; see Prompt.from_row
          def self.read(id, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            texts = options[0..(options.rindex { |text| !text.empty? } || 0)]
            pairs = texts.map { |text| pair(text) }
            return Reading.refused("a pair needs “=” between its items, like Heron = fish") unless pairs.all?
            return Reading.refused("it has fewer than two pairs") if pairs.count(&:first) < 2

            Match.new(id: id, settings: { "rows" => Rows.of(pairs), "made" => pairs.length })
                 .edited(common.merge("game" => rules.include?("face down") ? "1" : "0"))
          end

          # @return [Array<String>]
          def self.options(rows)
            rows.map { |row| row["extra"] ? left(row["right"]) : "#{left(row["left"])} = #{quoted(row["right"])}" }
          end

          # @return [Hash{String=>String}] see Prompt#row_slots
          def self.slots(rows)
            rows.each_with_index.flat_map do |row, place|
              letter = ("A".ord + place).chr
              [([letter, "#{row["id"]}a"] unless row["extra"]), ["#{letter} right", "#{row["id"]}b"]].compact
            end.to_h
          end

          # @return [Array(String, String), nil] nil on the left for an item too many
          def self.pair(text)
            return [nil, RowRules.unquote(text)] if text.match?(/\A#{RowRules::QUOTED}\z/o)

            found = text.match(PAIR)
            return text.empty? ? nil : [nil, text] unless found

            left = found[:quoted] ? RowRules.unquote(found[:quoted]) : found[:plain]
            [(left if found[:quoted] || !left.empty?), RowRules.unquote(found[:right])]
          end

          def self.left(text) = text.empty? ? RowRules.quote(text) : quoted(text)

          def self.quoted(text) = text.match?(/[="]/) ? RowRules.quote(text) : text
          private_class_method :pair, :left, :quoted
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          MOST = (1..10)
          COLUMNS = (0..4)
          COLUMN_LIMIT = 40

          of_prompt :most, :settings, :with_settings, :columns

          # @param form [Hash] "most", "approve", "named", "likes", "pictures", "others", "columns" with commas between
          def edited(form)
            read_common(form).and_then do |common|
              read_number(form.fetch("most", most.to_s), MOST, "The number of cards", "cards").and_then do |number|
                read_columns(form).map do |columns|
                  ticks = %w[approve named likes pictures others].to_h do |name|
                    [name, form.fetch(name, settings[name] ? "1" : "0") == "1"]
                  end
                  with_settings(common.merge(ticks, "most" => number || most, "columns" => columns))
                end
              end
            end
          end

          private

          def read_columns(form)
            return Reading.ok(columns) unless form.key?("columns")

            Text.read(form["columns"], limit: 200, what: "The columns", lines: false).and_then do |text|
              named = text.split(",").map(&:strip).reject(&:empty?).uniq
              next Reading.refused("#{COLUMNS.max} columns is the most a board can have.") if named.length > COLUMNS.max

              Reading.ok(named.map { |name| name[0, COLUMN_LIMIT] })
            end
          end
        end
      end
    end
  end
end

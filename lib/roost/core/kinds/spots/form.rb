# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Spots
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          MOST = (1..10)
          MARKS = %w[dot ring cross flag].freeze
          MOST_REGIONS = 10

          of_prompt :most, :with_settings, :labels?, :mark_kind, :settings

          # @param form [Hash] "most", "mark", "colour", "labels", "regions" (JSON of an Array as
          #   Region#to_document writes each)
          def edited(form)
            read_common(form).and_then do |common|
              read_number(form.fetch("most", most.to_s), MOST, "The number of spots", "spots").and_then do |number|
                read_regions(form).map do |regions|
                  with_settings(common.merge(look(form), "most" => number || most, "regions" => regions))
                end
              end
            end
          end

          private

          def look(form)
            labels = form.key?("labels") ? form["labels"] == "1" : labels?
            { "mark" => MARKS.include?(form["mark"]) ? form["mark"] : mark_kind, "labels" => labels,
              "colour" => Prompt::COLOURS.key?(form["colour"]) ? form["colour"] : settings["colour"] }
          end

          def read_regions(form)
            return Reading.ok(settings["regions"]) unless form.key?("regions")

            raw = parsed(form["regions"].to_s, most: Prompt::MOST_BYTES)
            return Reading.refused("The regions could not be read. Reload the page.") unless raw.is_a?(Array)
            return Reading.refused("#{MOST_REGIONS} regions is the most a picture can have.") if raw.length > MOST_REGIONS

            read = raw.map { |region| Region.read(region) }
            return Reading.refused("A region has to lie on the picture. Move it back.") unless read.all?

            Reading.ok(read.map(&:to_document))
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Writing
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          SIZES = { "line" => "One line", "paragraph" => "A paragraph", "equation" => "An equation" }.freeze
          MOST_BOXES = 5
          LABEL_LIMIT = 60
          WORD_LIMITS = (1..1000)

          of_prompt :word_limit, :settings, :with_settings

          # @param form [Hash] "size" => a key of SIZES, "word_limit", "boxes" => labels with commas between
          def edited(form)
            read_common(form).and_then do |common|
              read_number(form.fetch("word_limit", word_limit), WORD_LIMITS, "The word limit", "words").and_then do |limit|
                read_labels(form).map do |labels|
                  size = SIZES.key?(form["size"]) ? form["size"] : settings["size"]
                  with_settings(common.merge("word_limit" => limit, "size" => size, "boxes" => labels))
                end
              end
            end
          end

          private

          def read_labels(form)
            return Reading.ok(settings["boxes"]) unless form.key?("boxes")

            Text.read(form["boxes"], limit: LABEL_LIMIT * MOST_BOXES, what: "The labels", lines: false).and_then do |text|
              labels = text.split(",").map(&:strip).reject(&:empty?).uniq
              next Reading.refused("#{MOST_BOXES} boxes is the most.") if labels.length > MOST_BOXES

              Reading.ok(labels.map { |label| label[0, LABEL_LIMIT] })
            end
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Gaps
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          TEXT_LIMIT = 2000
          DISTRACTORS_LIMIT = 400
          MOST_DISTRACTORS = 12

          of_prompt :text, :settings, :with_settings

          # @param form [Hash] "text" with gaps, "bank", "distractors" with commas between,
          #   "accents", "slip"
          def edited(form)
            read_common(form).and_then do |common|
              Text.read(form.fetch("text", text), limit: TEXT_LIMIT, what: "The text with gaps").and_then do |text|
                distractors(form).and_then do |words|
                  ticks = %w[bank accents slip].to_h { |name| [name, form.fetch(name, settings[name] ? "1" : "0") == "1"] }
                  with_settings(common.merge(ticks, "text" => text, "distractors" => words)).checked
                end
              end
            end
          end

          private

          def distractors(form)
            return Reading.ok(settings["distractors"]) unless form.key?("distractors")

            Text.read(form["distractors"], limit: DISTRACTORS_LIMIT, what: "The other words", lines: false).map do |words|
              words.split(/[,;]/).map(&:strip).reject(&:empty?).uniq.first(MOST_DISTRACTORS)
            end
          end
        end
      end
    end
  end
end

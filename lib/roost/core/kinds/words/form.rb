# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          of_prompt :most, :with_settings

          # @param form [Hash] "most"
          def edited(form)
            read_common(form).and_then do |common|
              read_number(form.fetch("most", most.to_s), Prompt::MOST, "The number of words", "words").map do |number|
                with_settings(common.merge("most" => number || most))
              end
            end
          end
        end
      end
    end
  end
end

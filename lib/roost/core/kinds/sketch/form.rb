# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # What a teacher says of it in the builder.
        class Form < Kinds::Form
          of_prompt :with_settings

          def edited(form)
            read_common(form).map do |common|
              with_settings(common.merge("over_picture" => form["over_picture"] == "1"))
            end
          end
        end
      end
    end
  end
end

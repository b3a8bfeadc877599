# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # What a teacher says of it.
        class Form < Kinds::Form
          def edited(form)
            read_common(form).and_then do |common|
              read_number(form.fetch("key", prompt.settings["key"]), 0..9, "The dial", "turns")
                .map { |key| prompt.with_settings(common.merge("key" => key)) }
            end
          end
        end
      end
    end
  end
end

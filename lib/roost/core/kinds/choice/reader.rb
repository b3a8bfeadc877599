# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # Reads an answer to it.
        class Reader < Kinds::Reader
          of_prompt :shuffle?, :shape, :several?, :sure?

          def read(raw, names = Session::Handles::PLAIN)
            return Reading.refused("That answer could not be read. Choose again.") unless raw.is_a?(Hash)

            picked = Array(raw["options"]).uniq
            picked = picked.map { |name| names.item(name) } if shuffle?
            return Reading.refused("That option isn't on this slide. Choose again.") unless (picked - shape).empty?
            return Reading.refused("Choose just one option.") if picked.length > 1 && !several?

            Reading.ok({ "options" => shape & picked }.merge(sure? ? { "sure" => Sureness.read(field(raw, "sure")) } : {}))
          end

          def blank_answer?(value) = value["options"].empty?

          def missing = "Choose an answer first."
        end
      end
    end
  end
end

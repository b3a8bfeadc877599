# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Choice
        # Reads an answer to it.
        class Reader < Kinds::Reader
          # Keys of a keypad, from A on.
          KEYS = 6
          WORDS = { "Y" => "yes", "N" => "no", "T" => "true", "F" => "false" }.freeze

          of_prompt :shuffle?, :shape, :several?, :sure?, :options

          def read(raw, names = Session::ItemIds::PLAIN)
            return Reading.refused("That answer could not be read. Choose again.") unless raw.is_a?(Hash)

            picked = Array(raw["options"]).uniq
            picked = picked.map { |name| names.item(name) } if shuffle?
            return Reading.refused("That option isn't on this slide. Choose again.") unless (picked - shape).empty?
            return Reading.refused("Choose just one option.") if picked.length > 1 && !several?

            Reading.ok({ "options" => shape & picked }.merge(sure? ? { "sure" => Sureness.read(field(raw, "sure")) } : {}))
          end

          # Where the letters are not each seat's own, and there are keys for all.
          def keypad_takes = shuffle? || shape.length > KEYS ? nil : :letters

          # Options called Yes and No have keys of their own.
          def keypad_keys = keypad_takes ? options.map { |option| WORDS.key(option.name.downcase) || option.letter } : []

          def keypad(keys)
            picked = keys.upcase.scan(/[A-Z]/).map { |key| pressed(key) }
            { "options" => picked.map(&:id) } if picked.any? && picked.none?(&:nil?)
          end

          def keypad_of(value)
            at = options.index { |option| option.id == value["options"].first }
            keypad_keys[at] if at && value["options"].one? && keypad_takes
          end

          def blank_answer?(value) = value["options"].empty?

          def missing = "Choose an answer first."

          private

          def pressed(key)
            options.find { |option| option.letter == key } || options.find { |option| option.name.casecmp?(WORDS[key].to_s) }
          end
        end
      end
    end
  end
end

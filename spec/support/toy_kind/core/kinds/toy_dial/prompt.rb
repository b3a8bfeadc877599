# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # Turns a dial from 0 to 9. The key is a number. Live on a board. A value is {"turn" => 0 to 9}.
        class Prompt < Core::Prompt
          def self.label = "Toy"
          def self.place = 99
          def self.purpose = "Turn a dial"
          def self.charted? = true
          def self.keyable? = true
          def self.ways = { "list" => "As a list", "dial" => "As a dial" }
          def self.blank = { "key" => nil }

          def instruction = "Turn the dial"

          def keyed? = !settings["key"].nil?

          def board? = true

          def most = 9
        end
      end
    end
  end
end

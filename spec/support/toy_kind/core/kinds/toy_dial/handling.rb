# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # A command of its own.
        class Handling < Kinds::Handling
          COMMANDS = %w[double].freeze
          ARGUMENTS = %w[way doubled].freeze

          private

          def curate(_name, arguments, curation) = curation.with_own("doubled" => arguments["doubled"] == "1")
        end
      end
    end
  end
end

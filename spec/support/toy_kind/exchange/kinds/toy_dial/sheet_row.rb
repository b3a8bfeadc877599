# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module ToyDial
        # A dial as a row of a sheet of questions.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "right" => "where the dial has to stand" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            kind.new(id: id, settings: {}).edited(common.merge("key" => right))
          end

          def right = prompt.settings["key"].to_s
        end
      end
    end
  end
end

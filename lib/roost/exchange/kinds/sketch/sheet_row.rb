# frozen_string_literal: true

module Roost
  module Exchange
    module Kinds
      module Sketch
        # A sketch as a row of a sheet of questions, both ways.
        class SheetRow < Kinds::SheetRow
          EXPLAINED = { "rules" => "on the picture" }.freeze

          def self.read(id, kind, options:, right:, rules:, common:) # rubocop:disable Lint/UnusedMethodArgument
            kind.new(id: id, settings: {}).edited(common.merge("over_picture" => rules.include?("on the picture") ? "1" : "0"))
          end

          def rules = true_of("on the picture" => prompt.over_picture?)
        end
      end
    end
  end
end

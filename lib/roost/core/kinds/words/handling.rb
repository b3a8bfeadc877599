# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # Single words can be removed for all and put back; what was held back can be let through.
        class Handling < Kinds::Handling
          COMMANDS = %w[remove restore approve].freeze
          ARGUMENTS = %w[cards].freeze
        end
      end
    end
  end
end

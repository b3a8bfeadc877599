# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Words
        # Single words can be removed for all, and put back.
        class Handling < Kinds::Handling
          COMMANDS = %w[remove restore].freeze
          ARGUMENTS = %w[cards].freeze
        end
      end
    end
  end
end

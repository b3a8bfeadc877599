# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Posts
        # Cards can be let through or held back, pinned, removed for all, and sorted into columns.
        class Handling < Kinds::Handling
          COMMANDS = %w[remove restore approve hold pin unpin column].freeze
          ARGUMENTS = %w[cards column].freeze
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # How right an answer is. Marks are given by hand where a kind says nothing else.
      class Marking < Part
        # @param value [Hash] as the kind's Reader gave it
        # @param steps [Array<Step>, nil] where a mark may be one in part: to which it is added how that comes about
        # @return [Rational, nil] 0 to 1; nil when nothing marks it
        def mark(_value, **) = nil
      end
    end
  end
end

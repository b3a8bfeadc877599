# frozen_string_literal: true

module Roost
  module Core
    module Analysis
      # The interval in which a share lies, from as many marks as there are (E. B. Wilson, Probable inference, the law of
      # succession, and statistical inference, 1927).
      module Wilson
        Z = 1.959964 # of 95 %

        # @param sum [Numeric] of marks from 0 to 1
        # @param count [Integer] how many, at least one
        # @return [Array(Float, Float)]
        def self.interval(sum, count)
          share = sum.to_f / count
          middle = share + ((Z**2) / (2 * count))
          half = Z * Math.sqrt(((share * (1 - share)) + ((Z**2) / (4 * count))) / count)
          [middle - half, middle + half].map { |each| (each / (1 + ((Z**2) / count))).clamp(0.0, 1.0) }
        end
      end
    end
  end
end

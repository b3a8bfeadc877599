# frozen_string_literal: true

module Roost
  module Web
    # How a question went over sessions, in a line.
    module Asked
      WELL = 0.3 # discrimination from which on it separates well; below Items::APART it does not

      # @param over [Core::Analysis::OverSessions]
      # @return [String] such as "Asked 9 times, 43 to 71 % right, separates well"
      def self.in_words(over)
        times = over.asked.length
        from, to = over.range.map { |share| (share * 100).round(half: :up) }
        right = from == to ? "#{from} % right" : "#{from} to #{to} % right"
        ["Asked #{times == 1 ? "once" : "#{times} times"}", right, separates(over.discrimination)].compact.join(", ")
      end

      # @param discrimination [Float, nil]
      def self.separates(discrimination)
        return nil unless discrimination
        return "separates well" if discrimination >= WELL

        discrimination < Core::Analysis::Items::APART ? "hardly separates" : nil
      end
    end
  end
end

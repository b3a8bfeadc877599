# frozen_string_literal: true

module Bench
  class Kinds
    # How long a cloud of 60 words takes.
    class Words
      GOALS = { cloud_60_ms: "under 50" }.freeze
      MANY = 60

      def initialize(*); end

      # @return [Hash{Symbol=>Numeric}]
      def call
        random = Random.new(3)
        row = Roost::Core::Kinds::Words::Tallying::Row
        rows = Array.new(MANY) do |number|
          text = "marshbirds"[0, 3 + (number % 8)] + number.to_s
          row.new(key: text, text: text, count: 1 + (20 * (random.rand**3)).floor, names: [])
        end
        times = Array.new(ROUNDS) do
          began = Bench.clock
          Roost::Core::Tallies::Cloud.layout(rows, **Roost::Core::Kinds::Words::Tallying::CLOUD)
          (Bench.clock - began) * 1000
        end
        { cloud_60_ms: Bench.median(times).round(1) }
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module Match
        # What its game asks.
        module Routes
          # Two cards that were turned over, with a comma between: whether they belong together is told one try at a time.
          def self.registered(app)
            app.asks("match", "turned") do |prompt, names|
              { pair: prompt.reader.turned(text("cards").to_s.split(",", 2), names) }
            end
          end
        end
      end
    end
  end
end

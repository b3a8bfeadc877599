# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module ToyDial
        # What the toy asks: how far its dial goes.
        module Routes
          def self.registered(app)
            app.asks("toy_dial", "most") { |prompt, _names| { most: prompt.most } }
          end
        end
      end
    end
  end
end

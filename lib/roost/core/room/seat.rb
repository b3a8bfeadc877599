# frozen_string_literal: true

module Roost
  module Core
    module Room
      # One participant in one session, as the other parts of the core see it.
      # `here` is false when the device left or its window is in the background.
      Seat = Struct.new(:id, :name, :here, :practice, keyword_init: true)
    end
  end
end

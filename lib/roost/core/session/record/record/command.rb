# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Record
        # A command that was given. arguments:: as they were sent; account_id:: nil of what the clock did; at:: epoch seconds
        # slide_id:: of where the class was then, or nil
        Command = Struct.new(:name, :arguments, :account_id, :slide_id, :at, keyword_init: true)
      end
    end
  end
end

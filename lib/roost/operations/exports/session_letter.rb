# frozen_string_literal: true

module Roost
  module Operations
    # The same on Letter.
    class SessionLetter < SessionPaper
      SIZE = "LETTER"
    end
  end
end

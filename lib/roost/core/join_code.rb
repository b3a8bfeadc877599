# frozen_string_literal: true

module Roost
  module Core
    # Six letters and digits that let a device into a session, as long as it runs.
    JoinCode = LetterCode.new(6, 3)
  end
end

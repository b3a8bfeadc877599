# frozen_string_literal: true

module Roost
  module Core
    # A student's personal code: one of 21^12, so that nobody comes upon another's.
    StudentPass = LetterCode.new(12, 4)
  end
end

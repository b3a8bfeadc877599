# frozen_string_literal: true

module Roost
  module Core
    # Leads to the page of a class, where its students see what is on: one of 21^8.
    ClassCode = LetterCode.new(8, 4)
  end
end

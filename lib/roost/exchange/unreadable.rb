# frozen_string_literal: true

module Roost
  module Exchange
    # A file from outside can't be read; the message says why, in words that go on after its name.
    class Unreadable < StandardError
    end
  end
end

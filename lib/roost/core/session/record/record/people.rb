# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Record
        # Who took part.
        #
        # seats:: [Seat] in order of joining
        # roll::  [Student] of the class it was given to; none without a class, or where nobody is to be known
        # teams:: [Team] of the session
        People = Struct.new(:seats, :roll, :teams, keyword_init: true)
      end
    end
  end
end

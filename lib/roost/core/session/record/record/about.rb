# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Record
        # What the session itself says.
        #
        # begun_at:: when the lesson began (epoch seconds), as far as that is known
        # counts::   which of a student's attempts counts, of Sitting::COUNTS; nil where the room is asked: the latest that was
        #            opened
        # live::     whether it is looked at while it goes on: then the present attempt at a question is meant; looked back on, of
        #            a round that was played several times the first is, after which everybody had been told what is right
        About = Struct.new(:id, :title, :lesson, :options, :begun_at, :counts, :live, keyword_init: true)
      end
    end
  end
end

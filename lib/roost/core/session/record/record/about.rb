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
        About = Struct.new(:id, :title, :lesson, :options, :begun_at, :counts, keyword_init: true)
      end
    end
  end
end

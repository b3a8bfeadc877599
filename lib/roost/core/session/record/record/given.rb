# frozen_string_literal: true

module Roost
  module Core
    module Session
      class Record
        # What came in, and what was sent.
        #
        # answers::  Hash of [slide id, attempt] to Hash (or AnswerSet) of seat id to Answer
        # shown::    Hash of [slide id, attempt] to Hash (or AnswerSet::Seats) of seat id to the time (epoch seconds) when
        #            the open prompt was sent to that seat's device
        # sat::      Hash of [seat id, attempt] to ids of the slides of its sittings that have ended
        # hand:: Hash of [slide id, attempt] to seat id to the mark (Rational) that a teacher gave
        # teams_at:: Hash of [slide id, attempt] to seat id to the id of the team it was in when the question opened
        # commands:: [Command] in order, where they are asked for
        Given = Struct.new(:answers, :shown, :sat, :commands, :hand, :teams_at, keyword_init: true)
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # What a class gave, put together. A kind defines #gathered or #tally.
      class Tallying < Part
        # What the class gave, with all that a tally may need.
        #
        # @param values [Hash{Integer=>Hash}] seat id to value, in the order in which they came
        # @option about [Hash{Integer=>String}] :names seat id to name
        # @option about [Hash{Integer=>String}] :teams seat id to the name of its team, where there are teams
        # @option about [Session::Curation] :curation what the teacher has done with single words or cards
        # @option about :before the tally of the moment before, or nil: what it knows isn't worked out again
        def gathered(values, **_about) = tally(values.values)

        # What values come to by themselves.
        # @param values [Array<Hash>]
        def tally(values) = gathered(values.each_with_index.to_h { |value, place| [place, value] })

        # What of a tally may reach the class screen and the seats.
        def for_class(tally) = tally

        # How much of it waits for the teacher to let it through.
        # @return [Integer]
        def waiting(_tally) = 0

        # What the teacher should notice of one answer beside the others, in a word or two.
        # @param tally what #tally gave of all answers
        # @return [String, nil]
        def remark(_value, _tally) = nil
      end
    end
  end
end

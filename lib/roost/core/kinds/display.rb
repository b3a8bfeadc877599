# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      # How what was given is shown: on pages of the class screen, and one answer in words.
      class Display < Part
        # How many pages it takes on the class screen what the class gave: so much as can be read
        # from the back row goes on one.
        # @param tally as Tallying#for_class gives it
        # @param way [String, nil] one of the kind's ways
        def pages(_tally, _way) = 1

        # What of a tally stands on one of these pages, by number from 0.
        def page(tally, _way, _number) = tally

        # One answer in words, for lists and sheets.
        # @return [String]
        def plain(_value) = ""

        # The same without what was said besides, such as how sure somebody was: answers of which it is the same are alike. "" of
        # what words can't say.
        # @return [String]
        def answered(value) = plain(value)

        # What would be right, in words; nil where no key says so, or no words can.
        # @return [String, nil]
        def right_in_words = nil

        # One answer, in as few letters as tell it from others, for a student's tile at the Desk.
        # @return [String]
        def short(value) = plain(value)

        # Whether that may be more than some letters, for which a tile has a second line from the start.
        def short_in_words? = true

        # What of the tally an answer is part of, so that touching it at the Desk lights who gave it.
        # @param tally as Tallying#gathered gives it
        # @return [Array<String>] as the kind's view `result` names it (data-part): without spaces
        def tally_parts(_value, _tally) = []

        # What of an answer a teacher can draw over, each by itself.
        # @return [Array<String>] names of the parts, "" for all of it; none where she can't
        def drawn_parts(_value) = []

        # @return [Picture, nil] a picture that was sent with an answer
        def picture_of(_value, _post_id) = nil

        private

        # @param things [Array] in their order
        # @param most [Integer] on a page
        # @param room [Numeric] of a page
        # @yieldparam thing
        # @yieldreturn [Numeric] what it takes of that
        # @return [Array<Array>] pages; none without things
        def pages_by_room(things, most:, room:)
          taken = 0
          things.each_with_object([]) do |thing, pages|
            takes = yield thing
            pages << [] if pages.empty? || pages.last.length >= most || taken + takes > room
            taken = pages.last.empty? ? takes : taken + takes
            pages.last << thing
          end
        end

        # @return [Integer] how many pages so many things take; at least one, for none
        def pages_of(count, each) = [(count / each.to_f).ceil, 1].max
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Session
      # What was worked out of a record and still holds of the next one of the same session, so that an answer costs the same in
      # a long session as in a short one. It belongs to whoever reads one record after the other (Live::SessionCache); a record
      # that is read once has one of its own. For one thread at a time.
      class Memory
        # Values of a question that are kept with what they are worth: one that is being written gives many.
        MOST_WORTHS = 5_000
        private_constant :MOST_WORTHS

        # Slide id to what was tallied of it last; the next tally starts from it, so that a chart can stay where it was.
        # @return [Hash]
        attr_reader :tallies

        # What a view keeps for the next of the same people and lesson, under its own name.
        # @return [Hash{Symbol=>Object}]
        attr_reader :views

        def initialize(tallies: {})
          @tallies = tallies
          @worths = {}.compare_by_identity
          @plays = {}
          @of_same = {}
          forget
        end

        # What was found out about answers holds as long as the same people answer the same lesson.
        # @param record [Record] that is looked at from now on
        def look_at(record)
          forget unless same_people?(record)
          forget_plays(record)
          @worths = {}.compare_by_identity unless record.lesson.equal?(@lesson)
          @seats = record.seats
          @lesson = record.lesson
          @present = record
        end

        # @param seats [Array<Seat>]
        # @return [Hash{Integer=>String}] seat id to name
        def names(seats)
          @names = seats.to_h { |seat| [seat.id, seat.name] } unless seats.equal?(@named)
          @named = seats
          @names
        end

        # What the block finds of all that was given to a question, as long as that is the same object.
        # @param what [Symbol]
        # @yieldparam before what was found the last time, of other answers; nil at first
        def of_answers(record, what, slide_id)
          return yield(nil) unless record.equal?(@present) || same_people?(record)

          of_slide = @found[slide_id] ||= {}
          answers = record.all_answers(slide_id)
          known, found = of_slide[what]
          return found if known.equal?(answers)

          yield(found).tap { |fresh| of_slide[what] = [answers, fresh] }
        end

        # Worked out once for each value that was given to a question.
        # @param value [Hash] as the prompt's kind read it
        # @return [Worth]
        def worth(prompt, value)
          of_prompt = @worths[prompt] ||= {}.compare_by_identity
          of_prompt.clear if of_prompt.length >= MOST_WORTHS
          of_prompt[value] ||= Worth.of(prompt, value)
        end

        # What the block finds of one question in one play of its round, as long as nothing about it is another.
        # @param opening [Opening] of that play
        def of_play(record, slide_id, attempt, opening)
          return yield unless record.equal?(@present)

          depends = [record.answers[[slide_id, attempt]], record.hand, record.set_aside?(slide_id), opening]
          known, found = @plays[[slide_id, attempt]]
          same = known && known.first(2).zip(depends).all? { |one, two| one.equal?(two) } && known.last(2) == depends.last(2)
          return found if same

          yield.tap { |fresh| @plays[[slide_id, attempt]] = [depends, fresh] }
        end

        # What the block finds of several things, as long as they are the same objects.
        # @param name [Object] under which it is kept
        # @param things [Array]
        def of_same(name, things)
          known, found = @of_same[name]
          return found if known && known.length == things.length && known.zip(things).all? { |one, two| one.equal?(two) }

          yield.tap { |fresh| @of_same[name] = [things, fresh] }
        end

        private

        # Points stand as long as the same seats with the same time and team play the same lesson, though they were read again.
        def forget_plays(record)
          return if same_people?(record)

          playing = record.seats.map { |seat| [seat.id, seat.factor, seat.team_id] }
          return if playing == @playing && record.lesson.equal?(@lesson)

          @playing = playing
          @plays = {}
          @of_same = {}
        end

        def same_people?(record) = record.seats.equal?(@seats) && record.lesson.equal?(@lesson)

        def forget
          @found = {}
          @views = {}
        end
      end
    end
  end
end

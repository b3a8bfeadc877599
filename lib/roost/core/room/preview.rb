# frozen_string_literal: true

module Roost
  module Core
    module Room
      # A session that exists only to be looked at: a lesson on one of its slides, with one
      # seat, as it will be when it is run. Made of the same commands and views.
      module Preview
        SEAT = 1
        YOU = Seat.new(id: SEAT, name: "You", here: true, practice: false).freeze
        # Stands where the join code will.
        NO_CODE = "······"

        # @param slide_id [String] of a slide the class gets
        # @param told [Boolean] answers closed, results and right answer up
        # @return [Snapshot]
        def self.of(lesson, slide_id, told: false)
          options = Options.new(**Options::DEFAULTS).freeze
          steps = [["begin", {}], ["jump", { "slide" => slide_id }]]
          steps += [["close", {}], ["show", { "what" => "results" }], ["show", { "what" => "key" }]] if told
          state = steps.reduce(State.start) do |now, (name, arguments)|
            next_state = Commands.call(lesson, options, now, name, arguments, 0.0)
            next_state.ok? ? next_state.value : now
          end
          Snapshot.new(id: 0, version: 0, title: lesson.title, code: NO_CODE, lesson: lesson, options: options, state: state,
                       answers: {}, shown: { slide_id => { SEAT => 0.0 } }, seats: [YOU])
        end
      end
    end
  end
end

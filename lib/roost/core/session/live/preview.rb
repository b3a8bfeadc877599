# frozen_string_literal: true

module Roost
  module Core
    module Session
      # A session that exists only to be looked at: a lesson on one of its slides, with one
      # seat, as it will be when it is run. Made of the same commands and views.
      module Preview
        SEAT = 1
        YOU = Seat.new(id: SEAT, name: "You", here: true, practice: false).freeze
        # Stands where the join code will.
        NO_CODE = "······"

        # @param slide_id [String] of a slide the class gets
        # @param told [Boolean] answers closed, results and right answer up
        # @return [Moment]
        def self.of(lesson, slide_id, told: false)
          options = Options.new(**Options::DEFAULTS).freeze
          after = Opening::GRACE
          steps = [["begin", {}, 0.0], ["jump", { "slide" => slide_id }, 0.0]]
          steps += [["close", {}, 0.0], ["show", { "what" => "results" }, after], ["show", { "what" => "key" }, after]] if told
          state = steps.reduce(State.start) do |now, (name, arguments, at)|
            next_state = Commands.call(lesson, options, now, name, arguments, at)
            next_state.ok? ? next_state.value : now
          end
          record = Record.new(about: Record::About.new(id: 0, title: lesson.title, lesson: lesson, options: options),
                              people: Record::People.new(seats: [YOU], roll: [], teams: []), facts: state.facts,
                              given: Record::Given.new(answers: {}, shown: { [slide_id, 1] => { SEAT => 0.0 } }, sat: {},
                                                       commands: [], hand: {}))
          Moment.new(record: record, state: state, version: 0, code: NO_CODE)
        end
      end
    end
  end
end

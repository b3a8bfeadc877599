# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module Sketch
        # What a class gave to it, put together.
        class Tallying < Kinds::Tallying
          Drawing = Struct.new(:seat_id, :value, keyword_init: true)

          of_prompt :blank_answer?

          def gathered(values, **)
            given = values.reject { |_, value| blank_answer?(value) }
            drawings = given.map { |seat_id, value| Drawing.new(seat_id: seat_id, value: value).freeze }
            Prompt::Tally.new(drawings: drawings, answered: drawings.length).freeze
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Core
    module Kinds
      module ToyDial
        # How often each turn was given, which the teacher may double.
        class Tallying < Kinds::Tallying
          Tally = Struct.new(:turns, :answered, keyword_init: true)

          def gathered(values, curation: Session::Curation::BLANK, **)
            given = values.each_value.filter_map { |value| value["turn"] }
            times = curation.own["doubled"] ? 2 : 1
            Tally.new(turns: given.tally.transform_values { |count| count * times }, answered: given.length).freeze
          end
        end
      end
    end
  end
end

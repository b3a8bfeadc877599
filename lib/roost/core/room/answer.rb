# frozen_string_literal: true

module Roost
  module Core
    module Room
      # What one seat sent for one slide. `value` is as the prompt's kind read it;
      # `final` says it was handed in; `late` that it came after answering had ended.
      # `arrival` puts answers into the order in which they first came. Times are seconds
      # since the epoch by the database clock.
      Answer = Struct.new(:seat_id, :slide_id, :value, :final, :late, :received_at, :arrival, keyword_init: true) do
        # Handed in by the end of answering rather than by the student.
        def unfinished?(run) = !final && !run&.open?
      end
    end
  end
end

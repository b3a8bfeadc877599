# frozen_string_literal: true

module Roost
  module Core
    module Room
      # What one seat sent for one slide. `value` is as the prompt's kind read it;
      # `final` says it was handed in; `late` that it came after answering had ended.
      # `arrival` puts answers into the order in which they first came. Times are seconds
      # since the epoch by the database clock. What can't be read as an answer (rules.md) has
      # no value and is kept as `typed`: field to texts.
      Answer = Struct.new(:seat_id, :slide_id, :value, :final, :late, :received_at, :arrival, :typed, keyword_init: true) do
        # Handed in by the end of answering rather than by the student.
        def unfinished?(run) = !final && !run&.open?

        # Whether it is an answer, and not only something typed.
        def readable? = typed.nil?

        # What was typed, for a person.
        # @return [String]
        def typed_text = typed.values.flatten.reject(&:empty?).join("; ")
      end
    end
  end
end

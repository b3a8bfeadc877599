# frozen_string_literal: true

module Roost
  module Web
    # Our own drawings as SVG text: the bird, the wire, the sun. Colours and
    # states are classes, set in the stylesheet. Everything here is safe to put into a
    # page as it is.
    module Drawings
      BIRD = "M3 35 L10 25 C10 12 17 5 25 5 C31 5 34 9 35 12 L43 15 L35 18.5 C35 28 28 34 18 34 C14.5 34 11.5 33 9.5 31.5 Z"
      WIRE_WIDTH = 1200
      ROW_HEIGHT = 62
      BIRD_WIDTH = 32.0
      BIRDS_A_WIRE = 36
      MOST_WIRES = 3

      module_function

      # @param state [Symbol] :answered, :writing, :here or :away
      def bird(state)
        %(<svg class="bird is-#{state}" viewBox="0 0 46 40" aria-hidden="true">#{bird_parts}</svg>)
      end

      # Where there are many: the shape of all of them, once, and each that is drawn by it.
      def bird_shape = %(<svg hidden><symbol id="bird" viewBox="0 0 46 40">#{bird_parts}</symbol></svg>)

      # @param state [Symbol] as above
      def bird_of_shape(state) = %(<svg class="bird is-#{state}" aria-hidden="true"><use href="#bird"/></svg>)

      def bird_parts = %(<path d="#{BIRD}"/><circle class="eye" cx="28" cy="13" r="1.9"/>)

      # The row of birds, one a seat, on wires that sag a little: one wire for a class,
      # two or three, and smaller birds, for more.
      # @param states [Array<Symbol>]
      def wire(states)
        wires = states.length <= BIRDS_A_WIRE ? 1 : (states.length / 100.0).ceil.clamp(2, MOST_WIRES)
        per_wire = [(states.length / wires.to_f).ceil, 1].max
        size = [WIRE_WIDTH / (per_wire + 1.0) / BIRD_WIDTH, 1.0].min
        height = ROW_HEIGHT * size
        rows = states.empty? ? [[]] : states.each_slice(per_wire).to_a
        body = rows.each_with_index.map { |row, place| wire_row(row, per_wire, place * height, size) }.join
        %(<svg class="wire" viewBox="0 0 #{WIRE_WIDTH} #{(rows.length * height).round(1)}" aria-hidden="true">#{body}</svg>)
      end

      def wire_row(row, per_wire, top, size)
        base = (top + (46 * size)).round(1)
        step = WIRE_WIDTH / (per_wire + 1.0)
        birds = row.each_with_index.map do |state, place|
          x = step * (place + 1)
          move = "translate(#{(x - (20 * size)).round(1)} #{(base + sag(x) - (36 * size)).round(1)}) scale(#{size.round(3)})"
          %(<g class="bird is-#{state}" transform="#{move}">#{bird_parts}</g>)
        end
        %(<path class="line" d="M0 #{base} Q#{WIRE_WIDTH / 2} #{base + 14} #{WIRE_WIDTH} #{base}"/>#{birds.join})
      end

      # Height of the wire's curve (a quadratic with its control point 14 below the ends).
      def sag(x) = 28 * (x / WIRE_WIDTH) * (1 - (x / WIRE_WIDTH))

      # A disc that sinks behind the wire; sun-timer moves it.
      # @param share [Float] of the time that is left, 0 to 1
      def sun(share)
        # An SVG in another shows nothing outside of itself.
        sky = %(<svg width="60" height="30"><circle cx="30" cy="#{(46 - (28 * share)).round(1)}" r="15"/></svg>)
        %(<svg class="sun" viewBox="0 0 60 36" aria-hidden="true">#{sky}<path d="M2 30 H58"/></svg>)
      end
    end
  end
end

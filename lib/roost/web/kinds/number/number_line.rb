# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module Number
        # Numbers on a line as SVG text: a dot each up to forty, bins above; under the axis the
        # box from the first to the third quartile with the median, and the mean. Colours are
        # classes, set in the stylesheet. Safe to put into a page as it is.
        class NumberLine
          WIDTH = 640
          HEIGHT = 230
          LEFT = 26
          BASE = 166
          TOP = 14
          RADIUS = 9

          # @param spread [Core::Tallies::Spread]
          # @param band [Array(Rational, Rational), nil] the key, when it may be shown
          # @param unit [String]
          # @param lit [Rendering, nil] at the Desk: the page, where what is drawn lights who gave it
          def initialize(spread, band:, unit:, lit: nil)
            @lit = lit
            @spread = spread
            @band = band
            @unit = unit
            @low, @high = [*spread.axis, *(spread.bins.flat_map { |bin| [bin.from, bin.to] } unless dots?)].minmax
          end

          # @return [String]
          def svg
            shapes = [(band if @band), dots? ? dots : bars, axis, box].compact.join
            label = Rack::Utils.escape_html(words)
            role = @lit ? "group" : "img"
            %(<svg class="chart" viewBox="0 0 #{WIDTH} #{HEIGHT}" role="#{role}" aria-label="#{label}">#{shapes}</svg>)
          end

          # What the marks under the axis stand for.
          # @return [Array<Array(String, String)>]
          def figures = ["Median", "Mean", "Middle half"].map { |name| rows.assoc(name) }

          # The same in words, as rows of a table.
          # @return [Array<Array(String, String)>]
          def rows
            least, greatest = spread.numbers.minmax
            far = spread.outliers.uniq.map { |number| show(number) }
            [["Answers", spread.numbers.length.to_s], ["Mean", figure(spread.mean)], ["Median", figure(spread.median)],
             ["Middle half", "#{figure(spread.q1)} to #{figure(spread.q3)}"],
             ["Least and greatest", "#{show(least)} to #{show(greatest)}"], ["Far off", far.empty? ? "none" : far.join(", ")]]
          end

          private

          attr_reader :spread

          def dots? = spread.numbers.length <= Core::Tallies::Spread::DOTS

          def show(number) = "#{Core::NumberText.show(number)} #{@unit}".strip

          # A figure that was worked out: two places more than the ticks of the axis have.
          def figure(number)
            step = spread.axis[1] - spread.axis[0]
            show(number.round([2 - Math.log10(step.to_f).floor, 0].max))
          end

          def words = rows.map { |name, value| "#{name}: #{value}" }.join(". ")

          def x(number)
            share = @high == @low ? 0.5 : ((number - @low) / (@high - @low)).to_f
            (LEFT + (share.clamp(0.0, 1.0) * (WIDTH - (2 * LEFT)))).round(1)
          end

          def band
            from, to = @band.map { |number| x(number) }
            rectangle("chart-band", from - 3, to + 3, TOP, BASE - TOP)
          end

          # Dots that would touch are put on top of each other; a high pile is pressed together.
          def dots
            piles = spread.numbers.group_by { |number| (x(number) / (2 * RADIUS)).round }.values
            step = [2.0 * RADIUS, (BASE - TOP - (2.0 * RADIUS)) / [piles.map(&:length).max - 1, 1].max].min
            piles.flat_map do |pile|
              at = x(pile.sum / pile.length)
              drawn = pile.each_with_index.map { |number, place| [number, dot(at, BASE - RADIUS - 2 - (place * step), number)] }
              drawn.group_by(&:first).map { |number, alike| lit(part_of(number), show(number), alike.map(&:last).join) }
            end.join
          end

          def lit(part, called, shapes, count: nil) = @lit ? @lit.lights_svg(part, called, shapes, count: count) : shapes

          def part_of(number) = Core::Kinds::Number::Display.part_of(number)

          def dot(at, height, number)
            far = spread.outliers.include?(number) ? " is-far" : ""
            %(<circle class="chart-dot#{far}" cx="#{at}" cy="#{height.round(1)}" r="#{RADIUS}"/>)
          end

          def bars
            most = spread.bins.map(&:count).max
            spread.bins.each_with_index.map do |bin, place|
              shape = bar(bin, (BASE - TOP - 20) * bin.count / most.to_f)
              lit("bin#{place}", "#{show(bin.from)} to #{show(bin.to)}", shape, count: bin.count)
            end.join
          end

          def bar(bin, height)
            left = x(bin.from)
            right = x(bin.to)
            top = (BASE - height).round(1)
            shape = rectangle("chart-bar", left + 1, right - 1, top, height.round(1))
            return shape if height.zero?

            %(#{shape}<text class="chart-count" x="#{((left + right) / 2).round(1)}" y="#{top - 5}">#{bin.count}</text>)
          end

          def rectangle(name, left, right, top, height)
            %(<rect class="#{name}" x="#{left}" y="#{top}" width="#{(right - left).round(1)}" height="#{height}" rx="3"/>)
          end

          def axis
            ticks = spread.axis.map do |number|
              at = x(number)
              tick = %(<path class="chart-axis" d="M#{at} #{BASE} v7"/>)
              %(#{tick}<text class="chart-tick" x="#{at}" y="#{BASE + 26}">#{show_tick(number)}</text>)
            end
            %(<path class="chart-axis" d="M#{LEFT - 16} #{BASE} H#{WIDTH - LEFT + 16}"/>#{ticks.join})
          end

          def show_tick(number) = Core::NumberText.show(number)

          def box
            return "" if spread.numbers.length < 3

            from, middle, to = [spread.q1, spread.median, spread.q3].map { |number| x(number) }
            y = BASE + 38
            rectangle("chart-box", from - 1, to + 1, y, 14) +
              %(<path class="chart-median" d="M#{middle} #{y - 3} v20"/>) +
              %(<path class="chart-mean" d="M#{x(spread.mean)} #{y - 2} l6 -8 h-12 Z"/>)
          end
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    module Kinds
      module Spots
        # Spots on their picture as SVG text: each as a mark, or all as a heat of how thick they
        # lie, with the regions of the key. Safe to put into a page as it is.
        class SpotMap
          WIDTH = 1000
          # Height of a picture's place where there is none, as part of the width.
          BARE = 0.75
          LEVELS = 5

          attr_reader :height

          # @param prompt [Core::Kinds::Spots::Prompt]
          # @param picture [Core::Picture, nil] what the spots lie on
          # @param page [Pictures] that it is drawn for
          def initialize(prompt, picture, page)
            @prompt = prompt
            @picture = picture
            @page = page
            @height = (WIDTH * aspect).round
          end

          # Height of the picture divided by its width.
          def aspect = @picture ? @picture.height.to_f / @picture.width : BARE

          # Attributes of an svg that holds it: with a size, so that it keeps its shape wherever it is
          # put, and nothing beside the picture can be tapped.
          def frame = %(class="spot-map" viewBox="0 0 #{WIDTH} #{height}" width="#{WIDTH}" height="#{height}")

          # @param inner [Array<String>] of the layers below
          def svg(*inner, label:, role: "img")
            %(<svg #{frame} role="#{role}" aria-label="#{escape(label)}">#{ground}#{inner.join}</svg>)
          end

          def ground
            paper = %(<rect class="sheet-paper" width="#{WIDTH}" height="#{height}" fill="#ffffff"/>)
            @picture ? paper + @page.picture_layer(@picture, %(width="#{WIDTH}" height="#{height}")) : paper
          end

          # @param spots [Array<Hash>] as in a value
          def marks(spots, small: false, numbered: false)
            scale = small ? 0.6 : 1
            shapes = spots.each_with_index.map do |spot, place|
              label = spot["label"].to_s.empty? ? "" : %(<text class="spot-label" y="-24">#{escape(spot["label"])}</text>)
              number = numbered ? %(<text class="spot-number" y="6">#{place + 1}</text>) : ""
              %(<g transform="translate(#{across(spot["x"])} #{down(spot["y"])}) scale(#{scale})">#{mark}#{label}#{number}</g>)
            end
            %(<g class="spot-marks">#{shapes.join}</g>)
          end

          # One mark around 0 0.
          def mark
            colour = @prompt.colour
            case @prompt.mark_kind
            when "ring" then %(<circle r="17" fill="#ffffff" fill-opacity="0.25" stroke="#{colour}" stroke-width="7"/>)
            when "cross" then [["#ffffff", 13], [colour, 8]].map { |stroke, width| cross(stroke, width) }.join
            when "flag"
              %(<path d="M0 0V-40" stroke="#251f33" stroke-width="4"/><path d="M1-40 30-31 1-20Z" fill="#{colour}"/>)
            else %(<circle r="17" fill="#{colour}" stroke="#ffffff" stroke-width="4"/>)
            end
          end

          # Cells of like density side by side are one piece; the stylesheet blurs them.
          # @param density [Core::Tallies::Density] of spots on this picture
          def heat(density)
            wide = WIDTH.to_f / density.columns
            high = height.to_f / density.rows
            pieces = density.cells.each_slice(density.columns).with_index.flat_map do |cells, row|
              runs(cells).map do |level, from, count|
                %(<rect class="is-#{level}" x="#{(from * wide).round(1)}" y="#{(row * high).round(1)}" ) +
                  %(width="#{(count * wide).round(1)}" height="#{high.round(1)}"/>)
              end
            end
            %(<g class="spot-heat">#{pieces.join}</g>)
          end

          # @param rows [Array<Core::Kinds::Spots::Tallying::Row>, nil] with how many they hold
          # @param lit [Boolean, nil] at the Desk, where touching one lights who has a spot in it
          def regions(rows, lit: false)
            shapes = rows.each_with_index.map do |row, place|
              x, y = row.region.middle
              words = [row.region.name, row.inside].map(&:to_s).reject(&:empty?).join(": ")
              shape = region(row.region) + %(<text class="spot-count" x="#{across(x)}" y="#{down(y)}">#{escape(words)}</text>)
              called = row.region.name.empty? ? "region #{place + 1}" : row.region.name
              lit ? @page.lights_svg("region#{place}", called, shape, count: row.inside) : shape
            end
            %(<g class="spot-regions">#{shapes.join}</g>)
          end

          def region(region)
            numbers = region.numbers.each_slice(2).flat_map { |x, y| [across(x), down(y)] }
            case region.shape
            when "circle" then %(<ellipse cx="#{numbers[0]}" cy="#{numbers[1]}" rx="#{numbers[2]}" ry="#{numbers[3]}"/>)
            when "rectangle"
              left, top, right, bottom = numbers
              %(<rect x="#{left}" y="#{top}" width="#{right - left}" height="#{bottom - top}"/>)
            else %(<polygon points="#{numbers.join(" ")}"/>)
            end
          end

          private

          def escape(text) = Rack::Utils.escape_html(text)

          def cross(stroke, width)
            %(<path d="M-14-14 14 14M14-14-14 14" stroke="#{stroke}" stroke-width="#{width}" stroke-linecap="round"/>)
          end

          def across(share) = (share * WIDTH).round

          def down(share) = (share * height).round

          # @return [Array<Array(Integer, Integer, Integer)>] level, first cell and length
          def runs(cells)
            levels = cells.map { |cell| (cell * LEVELS).ceil.clamp(0, LEVELS) }
            levels = levels.zip(cells).map { |level, cell| cell < 0.06 ? 0 : level }
            levels.each_with_index.slice_when { |one, other| one[0] != other[0] }
                  .map { |run| [run.first[0], run.first[1], run.length] }.reject { |level,| level.zero? }
          end
        end
      end
    end
  end
end

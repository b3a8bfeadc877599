# frozen_string_literal: true

zigzag = (0...9_900).flat_map { |point| [point % 1200, point.odd? ? 0 : 900] }
Bench::Hostile::BODIES["sketch"] =
  [{ strokes: [JSON.generate([{ tool: "pen", colour: "ink", points: zigzag }])] }, { strokes: ["[" * 200_000] }]

# frozen_string_literal: true

cards = Array.new(3) { |number| { id: "p#{number + 1}", text: Bench::Hostile::MARKS * 90, emoji: "", picture: nil, at: number } }
Bench::Hostile::BODIES["posts"] = [{ posts: [JSON.generate(cards)], likes: [JSON.generate(["x" * 100] * 300)] }]

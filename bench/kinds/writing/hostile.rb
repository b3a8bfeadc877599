# frozen_string_literal: true

Bench::Hostile::BODIES["writing"] = [{ text: [Bench::Hostile::MARKS * 2_400] }, { text: ["stars and reeds " * 500] },
                                     { text: ["\uFDFA" * 2_600] }]
# Eight thousand characters each, nearly alike.
Bench::Hostile::LONGEST["writing"] = lambda do |number|
  words = %w[reeds wind river stars marsh heron egret frost]
  said = Array.new(1_300) { |place| place % 97 == number % 97 ? "answer#{number}" : words[(place * 7) % 8] }
  { "text" => said.join(" ")[0, 8_000] }
end

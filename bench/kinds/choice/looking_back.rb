# frozen_string_literal: true

Bench::LookingBack::KIND.merge!(
  name: "choice", value: "jsonb_build_object('options', jsonb_build_array('o' || ((id + q) % 4)))",
  settings: { "options" => Array.new(4) { |at| { "id" => "o#{at}", "text" => "Bird #{at}" } }, "keys" => ["o1"] }
)

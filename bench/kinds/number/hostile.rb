# frozen_string_literal: true

Bench::Hostile::BODIES["number"] = [{ number: ["1" * 59] }, { number: ["1e30/3.#{"3" * 40}"] }]

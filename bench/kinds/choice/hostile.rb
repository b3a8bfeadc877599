# frozen_string_literal: true

Bench::Hostile::BODIES["choice"] = [{ options: ["o1"] * 20_000 }]

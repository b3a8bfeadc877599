# frozen_string_literal: true

Bench::Hostile::BODIES["order"] = [{ order: ["i1," * 40_000] }]

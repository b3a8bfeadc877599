# frozen_string_literal: true

Bench::Hostile::BODIES["match"] = [{ pairs: [JSON.generate((1..100).to_h { |n| ["m#{n}a", "m#{n}b"] })] }]

# frozen_string_literal: true

Bench::Hostile::BODIES["gaps"] = [(0..19).to_h { |gap| ["gap#{gap}", [Bench::Hostile::MARKS * 40]] }]

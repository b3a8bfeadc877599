# frozen_string_literal: true

Bench::Hostile::BODIES["spots"] = [{ spots: [JSON.generate([[0.5, 0.5, Bench::Hostile::MARKS * 30]] * 10)] }]

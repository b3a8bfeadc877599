# frozen_string_literal: true

Bench::Hostile::BODIES["words"] = [{ words: ["\uFDFA" * 40] * 5 }]

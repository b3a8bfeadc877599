# frozen_string_literal: true

module Roost
  module Core
    # Formulas (LaTeX) in a text: between dollar signs, $ … $ in a line and $$ … $$ in a line of their own. A price is no
    # formula: nothing may stand between the sign and the formula, and no digit after it.
    module Formula
      PATTERN = /\$\$(?<block>[^$]+?)\$\$|(?<![\\$])\$(?<line>[^\s$`](?:[^$`\n]*[^\s$`\\])?)\$(?!\d)/
      # As how many words one counts (rules.md, points).
      WORDS = 4
    end
  end
end

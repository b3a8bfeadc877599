# frozen_string_literal: true

module Roost
  module Core
    # Formulas (LaTeX) in a text: between dollar signs, $ … $ in a line and $$ … $$ in a line of their own. A price is no
    # formula: nothing may stand between the sign and the formula, and no digit after it.
    #
    # What is nested too deep, or too large, would stop the browsers of everybody who is shown it. It is shown as it was
    # written, and not taken as an answer. assets/js/shared/formula.js says the same on devices.
    module Formula
      PATTERN = /\$\$(?<block>[^$]+?)\$\$|(?<![\\$])\$(?<line>[^\s$`](?:[^$`\n]*[^\s$`\\])?)\$(?!\d)/
      # As how many words one counts (rules.md, points).
      WORDS = 4
      MOST_NESTED = 20
      MOST_NODES = 300
      MOST_CELLS = 60
      LONGEST = 2_000 # characters
      # A command, a sign in front of a character, or a character that is seen.
      TOKEN = /\\[a-zA-Z]+|\\.|\S/m
      OPENS = ["{", "\\left", "\\begin"].freeze
      CLOSES = ["}", "\\right", "\\end"].freeze
      # What begins another cell of a matrix.
      CELLS = ["&", "\\\\", "\\cr", "\\newline"].freeze
      # What could grow while it is set.
      DEFINITIONS = %w[\\def \\gdef \\edef \\xdef \\let \\futurelet \\newcommand \\renewcommand \\providecommand \\global].freeze

      # Whether a formula may be set.
      # @param source [String] LaTeX
      def self.settable?(source)
        return false if source.length > LONGEST

        depth = deepest = nodes = cells = 0
        source.scan(TOKEN) do |token|
          return false if DEFINITIONS.include?(token) || (nodes += 1) > MOST_NODES

          depth += 1 if OPENS.include?(token)
          depth -= 1 if CLOSES.include?(token)
          deepest = [deepest, depth].max
          cells += 1 if CELLS.include?(token)
        end
        deepest <= MOST_NESTED && cells < MOST_CELLS
      end
    end
  end
end

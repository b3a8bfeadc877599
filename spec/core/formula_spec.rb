# frozen_string_literal: true

require "json"
require "open3"

# Formulas that would stop a browser are told by the server and by the device alike.
RSpec.describe Roost::Core::Formula do
  nested = ->(count) { "#{"\\frac{1}{" * count}x#{"}" * count}" }
  matrix = ->(cells) { "\\begin{matrix}#{Array.new(cells, "a").join("&")}\\end{matrix}" }
  # name => [formula, whether it may be set]
  formulas = {
    "a plain one" => ["E = mc^2", true], "fractions" => [nested.call(19), true], "too deep" => [nested.call(150), false],
    "one too deep" => ["#{"{" * 21}x#{"}" * 21}", false], "just deep enough" => ["#{"{" * 20}x#{"}" * 20}", true],
    "brackets that grow" => ["#{"\\left(" * 21}x#{"\\right)" * 21}", false],
    "a matrix" => [matrix.call(60), true], "a flat matrix of many cells" => [matrix.call(61), false],
    "rows" => ["\\begin{matrix}#{"a\\\\" * 60}\\end{matrix}", false], "many signs" => ["x" * 300, true],
    "too many signs" => ["x" * 301, false], "definitions" => ["\\def\\a{\\a\\a}\\a", false], "let" => ["\\let\\a=b", false],
    "a command that only begins like one" => ["\\definitely x", true], "too long" => ["x#{" " * 2_000}", false],
    "braces that close first" => ["}}}#{"{" * 20}", true], "signs of two halves" => ["🐦" * 300, true],
    "spaces of other kinds" => ["a\u00A0b\u2003c" * 60, true], "an escaped brace" => ["\\{" * 100, true]
  }

  formulas.each do |name, (source, settable)|
    it("#{settable ? "sets" : "does not set"} #{name}") { expect(described_class.settable?(source)).to be(settable) }
  end

  it "is the same rule on devices, for these and two thousand drawn ones" do
    drawn = Random.new(20)
    parts = ["{", "}", "\\frac", "\\left(", "\\right)", "&", "\\\\", "x", " ", "\\{", "\\begin{matrix}", "\\end{matrix}", "\\let",
             "é", "\u00A0", "\\cr", "^", "🐦", "\\"]
    all = formulas.values.map(&:first) +
          Array.new(2_000) { Array.new(drawn.rand(400)) { parts[((drawn.rand**2) * parts.length).floor] }.join }
    said, = Open3.capture3("node", "--input-type=module", "-e", <<~JS, stdin_data: JSON.generate(all), chdir: Roost::Settings::ROOT)
      import { settable } from "#{Roost::Settings::ROOT}/assets/js/shared/formula.js";
      import { readFileSync } from "node:fs";
      console.log(JSON.stringify(JSON.parse(readFileSync(0, "utf8")).map(settable)));
    JS
    expect(JSON.parse(said)).to eq(all.map { |source| described_class.settable?(source) })
    expect(all.map { |source| described_class.settable?(source) }.tally.values.min).to be > 100
  end
end

# frozen_string_literal: true

RSpec.describe Roost::Exchange::CsvText do
  it "puts a quote before what a spreadsheet would run, and takes off that quote alone" do
    ["=1+1", "+1", "@now", "-x", "\tx", "\rx", "'=1", "''@x"].each do |cell|
      quoted = described_class.quoted(cell)
      expect([quoted, described_class.unquoted(quoted)]).to eq(["'#{cell}", cell])
    end
  end

  it "leaves numbers and other texts as they are" do
    ["-1", "-1,5", "-1.000,5", "x=1", "'tis", "", nil, 7].each do |cell|
      expect(described_class.quoted(cell)).to eq(cell)
    end
    expect(described_class.unquoted("'tis")).to eq("'tis")
  end
end

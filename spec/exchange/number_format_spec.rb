# frozen_string_literal: true

# What programs of workbooks show for these (ECMA-376 part 1, 18.8.31).
RSpec.describe Roost::Exchange::Table::NumberFormat do
  let(:day) { (Date.new(2026, 11, 24) - Date.new(1899, 12, 30)).to_i }
  let(:shown) do
    [
      ["0.00", 2.5, "2.50"],
      ["0.00", -2.5, "-2.50"],
      ["General", 0.1 + 0.2, "0.3"],
      ["#,##0", 1_234_567, "1,234,567"],
      ["#,##0.00", 1234.5, "1,234.50"],
      ["0%", 0.5, "50%"],
      ["0.0%", 0.125, "12.5%"],
      ['0 "km"', 12, "12 km"],
      ['0.0\ "km"', 12.34, "12.3 km"],
      ['"£"#,##0.00', 1234.5, "£1,234.50"],
      ["#,##0.00 [$€-407]", 1234.5, "1,234.50 €"],
      ["#,##0 ;(#,##0)", -1234, "(1,234)"],
      ["#,##0 ;[Red](#,##0)", 1234, "1,234"],
      ["0.00E+00", 12_345, "1.23E+04"],
      ["##0.0E+0", 12_345, "12.3E+3"],
      ["# ?/?", 2.5, "2 1/2"],
      ["# ??/??", 0.3333333, "1/3"],
      ["# ?/8", 2.5, "2 4/8"],
      ["d mmmm yyyy", day, "24 November 2026"],
      ["dd.mm.yyyy", day, "24.11.2026"],
      ["yyyy-mm-dd", day, "2026-11-24"],
      ["ddd d mmm yy", day, "Tue 24 Nov 26"],
      ["dddd", day, "Tuesday"],
      ["mm-dd-yy", day, "11-24-26"],
      ["mmm-yy", day, "Nov-26"],
      ["mmmmm", day, "N"],
      ["h:mm AM/PM", 0.60416667, "2:30 PM"],
      ["hh:mm", 0.60416667, "14:30"],
      ["h:mm AM/PM", 0.0, "12:00 AM"],
      ["h:mm A/P", 0.5, "12:00 P"],
      ["[h]:mm", 1.5, "36:00"],
      ["[h]:mm:ss", 1.25, "30:00:00"],
      ["mm:ss", 0.001, "01:26"],
      ["mmss.0", 0.001, "0126.4"],
      ["m/d/yy h:mm", day + 0.5, "11/24/26 12:00"],
      ["[mm]:ss", 0.1, "144:00"],
      ["0.0#", 2.5, "2.5"],
      ["0.0#", 2.25, "2.25"],
      ["000", 7, "007"],
      ["000-0000", 5_551_234, "555-1234"],
      ["0,", 12_345, "12"],
      ["0.0,,", 1_234_567, "1.2"],
      ['[<1]0.00" low";0', 0.5, "0.50 low"],
      ['[<1]0.00" low";0', 5, "5"],
      ["0;-0;\"none\"", 0, "none"],
      ["@", 5, "5"],
      ["yyyy\"年\"m\"月\"", day, "2026年11月"],
      ["hh:mm:ss", 0.999999, "00:00:00"],
      ["#", 0, ""],
      ["0.##", 3, "3."],
      ["[$-809]d mmmm yyyy", day, "24 November 2026"],
      ["$#,##0.00", 5, "$5.00"],
      ["#,##0\\ \"kg\"", 1500, "1,500 kg"],
      ["0.00", 0, "0.00"],
      ["#,##0", 0, "0"]
    ]
  end

  it "shows numbers, money, parts, powers, days and times as the program that made them does" do
    expect(shown.map { |format, value, _| [format, value, described_class.new(format).show(value)] }).to eq(shown)
  end

  it "counts days from 1904 where the workbook does" do
    expect(described_class.new("yyyy-mm-dd", late_epoch: true).show(day - 1462)).to eq("2026-11-24")
  end

  it "says nothing where it does not understand the format, or the number in it" do
    expect(["0.0 furlongs", "yyyy-mm-dd"].zip([2.5, -3]).map { |format, value| described_class.new(format).show(value) })
      .to eq([nil, nil])
    expect(described_class.new("0" * 300).show(5)).to eq("5")
  end
end

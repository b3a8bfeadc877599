# frozen_string_literal: true

require "caxlsx"
require "tempfile"

# Sheets as other programs, and people, make them.
RSpec.describe "A sheet that somebody else made" do
  let(:sheet) { Roost::Exchange::QuestionSheet.new(->(_file) { true }) }

  def read(bytes, extension = ".csv")
    Tempfile.create(["sheet", extension], binmode: true) do |file|
      file.write(bytes)
      file.flush
      sheet.read(file.path, mark: "t")
    end
  end

  # @yieldparam page [Axlsx::Worksheet]
  # @yieldparam style [Proc] makes a style of a number format
  def workbook(before: nil)
    package = Axlsx::Package.new
    package.workbook.add_worksheet(name: "Cover") { |page| page.add_row([before]) } if before
    package.workbook.add_worksheet(name: "Quiz") do |page|
      yield page, ->(format) { page.styles.add_style(format_code: format) }
    end
    read(package.to_stream.read, ".xlsx")
  end

  it "names a number format that it doesn't understand, and takes the number as it is stored" do
    reading = workbook do |page, style|
      page.add_row(["Question", "Option A", "Option B"])
      page.add_row(["How much?", 12.5, 7], style: [nil, style.call("0.0 § 0"), nil])
      page.add_row(["How long?", 3, 4])
    end
    expect(options(reading).first).to eq(["12.5", "7"])
    expect(reading.value.rows.map(&:formats)).to eq([["0.0 § 0"], []])
  end

  def options(reading) = reading.value.usable.map { |slide| sheet_row(slide.prompt).options }

  it "is read as it is shown: percentages, money, dates and times" do
    reading = workbook do |page, style|
      page.add_row(["Question", "Option A", "Option B", "Option C", "Option D"])
      page.add_row(["How much?", 0.125, 0.5, 1234.5, 0.1 + 0.2],
                   style: [nil, style.call("0.0%"), style.call("0%"), style.call("&quot;£&quot;#,##0.00"), nil])
      page.add_row(["When?", Date.new(2026, 11, 24), Time.utc(2026, 11, 24, 14, 30), 1234.5, -3],
                   style: [nil, style.call("yyyy-mm-dd"), style.call("hh:mm"), style.call("#,##0.00 [$€-407]"), nil])
    end
    expect(options(reading)).to eq([["12.5%", "50%", "£1,234.50", "0.3"], ["2026-11-24", "14:30", "1,234.50 €", "-3"]])
  end

  # Formats that programs offer, and what they show with them.
  let(:shown) do
    day = Date.new(2026, 11, 24)
    { "d mmmm yyyy" => [day, "24 November 2026"], "dd.mm.yyyy" => [day, "24.11.2026"], "ddd d mmm yy" => [day, "Tue 24 Nov 26"],
      "0.00" => [2.5, "2.50"], "0.0#" => [2.25, "2.25"], "# ?/?" => [2.5, "2 1/2"], "0.00E+00" => [12_345, "1.23E+04"],
      "#,##0.0,," => [1_234_567, "1.2"], "000-0000" => [5_551_234, "555-1234"], "0.0\\ &quot;km&quot;" => [12.34, "12.3 km"],
      "h:mm AM/PM" => [0.6041667, "2:30 PM"], "[h]:mm" => [1.5, "36:00"], "mm:ss" => [0.001, "01:26"],
      "#,##0 ;[Red](#,##0)" => [-1234, "(1,234)"], "[&lt;1]0.00&quot; low&quot;;0" => [0.5, "0.50 low"] }
  end

  it "is read as it is shown, in the number formats of the standard" do
    reading = workbook do |page, style|
      page.add_row(["Question", "Option A", "Option B"])
      shown.each do |format, (value, _)|
        page.add_row(["How? #{format}", value, "other"], style: [nil, style.call(format), nil], types: [:string, nil, :string])
      end
    end
    expect(options(reading).map(&:first)).to eq(shown.values.map(&:last))
  end

  it "says where a formula has no value, also for the question, and is read where a cell has an empty value" do
    package = Axlsx::Package.new
    package.workbook.add_worksheet(name: "Quiz") do |page|
      page.add_row(["Question", "Option A", "Option B"])
      page.add_row(["=A9&B9", "Heron", "Swallow"], escape_formulas: false)
      page.add_row(["Who stays?", "Heron", 5])
    end
    bytes = rewritten(package.to_stream.read) { |xml| xml.sub(%r{<v>5(?:\.0)?</v>}, "<v></v>").sub(%r{(</f>)<v></v>}, '\\1') }
    found = read(bytes, ".xlsx").value.rows
    expect(found.map { |row| [row.number, row.reason] })
      .to eq([[2, "there is a formula in “Question”; put its value there"], [3, "it has fewer than two options"]])
  end

  # The workbook with the XML of its sheet changed.
  def rewritten(bytes)
    Zip::OutputStream.write_buffer do |out|
      Zip::File.open_buffer(bytes).each do |entry|
        text = entry.get_input_stream.read
        out.put_next_entry(entry.name)
        out.write(entry.name.include?("worksheets/") ? yield(text) : text)
      end
    end.string
  end

  it "has a title above its header, blank rows, merged cells, and stands on the second sheet" do
    reading = workbook(before: "Marsh quiz, autumn") do |page, _|
      page.add_row(["Questions for Year 7"])
      page.add_row([])
      page.add_row(["Question", "Kind", "Option A", "Option B", "Right"])
      page.add_row(["Who stays?", "choice", "Heron", "Swallow", "A"])
      page.add_row([])
      page.add_row(["Who leaves?", nil, "Heron", "Swallow", "Z"])
      page.merge_cells("A1:E1")
      page.merge_cells("B4:B6")
    end
    expect(reading.value.rows.map { |row| [row.number, row.question, row.reason] })
      .to eq([[4, "Who stays?", nil], [6, "Who leaves?", "“Right” names Z, which isn't an option"]])
  end

  it "loses none of 300 questions to blank lines, and says the sheet's own numbers" do
    rows = (1..300).map { |number| "Question #{number},a,b,#{number == 300 ? "Q" : "A"}\n\n" }
    found = read("Question,Option A,Option B,Right\n#{rows.join}").value
    expect([found.rows.length, found.usable.length, found.rows.last.number]).to eq([300, 299, 600])
  end

  it "says its separator, or is in UTF-16" do
    text = "Question;Option A;Option B\nWohin, und warum?;Süden;Norden\n"
    wide = %w[UTF-16LE UTF-16BE].map { |encoding| ["\uFEFF#{text}".encode(encoding), 2] }
    [["sep=;\n#{text}", 3], *wide].each do |bytes, number|
      found = read(bytes.b).value
      expect(found.rows.map { |row| [row.number, row.question, sheet_row(row.slide.prompt).options] })
        .to eq([[number, "Wohin, und warum?", %w[Süden Norden]]])
    end
  end

  it "has semicolons between its columns and commas within its sentences, or the other way round" do
    semicolons = "Question;Option A;Option B\nWho stays, who leaves, and why?;Heron, owl, duck;Swallow, stork, crane\n" \
                 "Who, then, sleeps here?;Owl, heron, duck;Nobody, ever, at all\n"
    expect(options(read(semicolons)))
      .to eq([["Heron, owl, duck", "Swallow, stork, crane"], ["Owl, heron, duck", "Nobody, ever, at all"]])
    commas = "Question,Option A,Option B\n\"Stay; leave; or sleep?\",Heron; owl; duck; crane,Swallow; stork; crane; owl\n"
    expect(options(read(commas))).to eq([["Heron; owl; duck; crane", "Swallow; stork; crane; owl"]])
    uneven = "Question;Option A;Option B;Right\nWho, who;Owl, duck, crane;Tern\nWhen, why, now;Then, soon\n" \
             "How, so;By, on, in;Foot;A\n"
    expect(options(read(uneven)).first).to eq(["Owl, duck, crane", "Tern"])
  end

  it "is told apart where it is locked, or of an old format" do
    compound = "\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1".b
    expect(read(compound + "EncryptedPackage".encode("UTF-16LE").b, ".xlsx").reason).to start_with("is locked with a password.")
    expect(read("#{compound}Workbook", ".xls").reason).to start_with("is in the old format of workbooks.")
  end

  describe "what is right" do
    def right(right, *texts)
      cells = [*texts, *Array.new(4 - texts.length)]
      found = read(CSV.generate_line(["Question", "Option A", "Option B", "Option C", "Option D", "Right"]) +
                   CSV.generate_line(["Who?", *cells, right])).value.rows.first
      found.reason || sheet_row(found.slide.prompt).right
    end

    it "is understood by letter, number or the option's text" do
      birds = ["Grey heron", "Swallow", "Reed bunting"]
      said = ["a, c", "A C", "1", "1; 3", "grey heron", "Swallow, Reed Bunting", "A and C", "2"]
      expect(said.map { |text| right(text, *birds) }).to eq(["A C", "A C", "A", "A C", "A", "B C", "A C", "B"])
      expect(right("5", "3", "5", "7")).to eq("B")
      expect(right("TRUE", "True", "False")).to eq("A")
    end

    it "is named where it is none of them, and never dropped" do
      expect(right("Heron", "Grey heron", "Swallow")).to eq("“Right” names Heron, which isn't an option")
      expect(right("2", "3", "5", "7")).to eq("“Right” names 2, which isn't an option")
      expect(right("9", "Heron", "Swallow")).to eq("“Right” names 9, which isn't an option")
    end
  end

  it "takes an item alone for one too many, as the pattern says, which asks for no formula" do
    found = read("Question,Kind,Option A,Option B,Option C\nEats,match,Heron = fish,Swift = flies,frogs\n").value.usable.first
    expect(sheet_row(found.prompt).options).to eq(["Heron = fish", "Swift = flies", "frogs"])
    expect(Roost::Exchange::QuestionRow::EXPLAINED.values.join).not_to match(/(?<!fish, and |Heron )= \w/)
  end

  it "comes back from a workbook without a quote of ours, and negative numbers are numbers" do
    kept = slide("s1", heading: "=Why?", prompt: choice(texts: ["-2", "=1+1", "'=so", "+ 1"]))
    text = sheet.csv([kept])
    expect(text).to include(",-2,'=1+1,''=so,'+ 1")
    through = Axlsx::Package.new.tap do |package|
      package.workbook.add_worksheet do |page|
        rows = CSV.parse(text.delete_prefix("\uFEFF"))
        rows.each { |row| page.add_row(row, types: [:string] * row.length, escape_formulas: true) }
      end
    end
    expect(options(read(through.to_stream.read, ".xlsx"))).to eq([["-2", "=1+1", "'=so", "+ 1"]])
    expect(options(read(sheet.xlsx([kept]), ".xlsx"))).to eq([["-2", "=1+1", "'=so", "+ 1"]])
  end
end

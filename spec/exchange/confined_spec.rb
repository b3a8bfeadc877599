# frozen_string_literal: true

require "tempfile"

# Files that would hold up everybody, read in a process of its own.
RSpec.describe Roost::Exchange::Confined do
  def written(bytes, extension)
    Tempfile.create(["hostile", extension], binmode: true) do |file|
      file.write(bytes)
      file.flush
      yield file.path
    end
  end

  def zipped(parts)
    Zip::OutputStream.write_buffer do |out|
      parts.each do |name, text|
        out.put_next_entry(name)
        out.write(text)
      end
    end.string
  end

  def reason(bytes, extension = ".csv")
    written(bytes, extension) { |path| Roost::Exchange::Table.read(path, headings: ["Question"], most: 500).reason }
  end

  it "refuses sheets that are too much, in words that go on after the file's name" do
    expect(reason("Question#{"," * 5_000_000}")).to eq("has more than 20 000 cells. Split it.")
    expect(reason("Question\n#{"#{"a," * 60}\n" * 400}")).to eq("has more than 20 000 cells. Split it.")
    expect(reason("\"#{"a\n" * 400_000}")).to be_a(String)
    expect(reason(zipped("xl/workbook.xml" => "<x/>", "xl/worksheets/sheet1.xml" => "<f" * 2_000_000), ".xlsx")).to be_a(String)
  end

  it "looks for formulas without going back over what it has read" do
    require "roost/exchange/table/workbook"
    pattern = Roost::Exchange::Table::Workbook::UNWORKED
    pieces = ["<f" * 30, "<f>" * 30, "<f>x</f>" * 30, "<c " * 30, '<c r="A1">' * 30, "</c>"]
    expect(pieces.map { |text| text.match?(pattern) }).to eq([false] * 6)
    expect('<c r="B2" s="1"><f>A1</f></c>').to match(pattern)
    expect(pattern.source).not_to match(/\[\^>\]\*/) # runs on over other tags
  end

  it "cleans drawings there, and refuses those with too many parts" do
    many = %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">#{"<g/>" * 21_000}</svg>)
    expect(drawing(many).reason).to start_with("has more than 20 000 parts.")
    entities = (2..9).map { |number| %(<!ENTITY a#{number} "#{"&a#{number - 1};" * 9}">) }
    bomb = %(<!DOCTYPE svg [<!ENTITY a1 "#{"x" * 1000}">#{entities.join}]>) +
           many.sub("<g/>" * 21_000, "<text>&a9;</text>")
    read = drawing(bomb)
    expect(read.ok? ? read.value.svg.bytesize : 0).to be < 100_000
  end

  def drawing(svg) = written(svg, ".svg") { |path| Roost::Exchange::Drawing.read(path) }

  it "ends what takes too long, or too much memory, and says that it failed" do
    slow = described_class.run("ruby", "-e", "loop { }", seconds: 1)
    large = described_class.run("ruby", "-e", "x = 'a' * (900 * 1024 * 1024); puts x.size", seconds: 10,
memory: 512 * 1024 * 1024)
    chatty = described_class.run("ruby", "-e", "print 'a' * 5_000_000", output: 100_000)
    expect([slow.success, large.success, chatty.success, chatty.output.bytesize < 200_000]).to eq([false, false, true, true])
  end

  it "decodes pictures one at a time" do
    running = 0
    most = 0
    allow(described_class).to receive(:run) do
      most = [most, running += 1].max
      sleep 0.05
      running -= 1
      described_class::Done.new(success: false, output: "", complaint: "")
    end
    Array.new(4) { Thread.new { Roost::Exchange::Raster.new("x.jpg").header } }.each(&:join)
    expect(most).to eq(1)
  end
end

# frozen_string_literal: true

require "rqrcode_core"

RSpec.describe Roost::Exchange::PassCards do
  let(:student) { Struct.new(:full_name) }
  let(:names) { ["Ada Lindqvist", "خديجة بنت محمد", *Array.new(7) { |at| "Student #{at}" }] }
  let(:cards) do
    described_class.cards(names.map { |name| [student.new(name), "PHNQTGQKHMX3"] }, base_url: "https://amber.example")
  end

  # Yields the PDF as a file.
  def made
    Tempfile.create(["cards", ".pdf"], binmode: true) do |file|
      file.write(described_class.pdf(cards, class_name: "Year 7 Kestrel", base_url: "https://amber.example"))
      file.flush
      yield file.path
    end
  end

  it "come eight to a page, each with a name, the pass and where it is typed, in a PDF with a title and a language" do
    made do |path|
      pdf = Roost::Exchange::Pdf.new(path)
      expect(pdf.pages.value).to eq(2)
      first = pdf.text(1)
      expect(first).to include("Ada Lindqvist", "Year 7 Kestrel", "amber.example")
      expect([first.scan("PHNQ TGQK HMX3").length, pdf.text(2).scan("PHNQ TGQK HMX3").length]).to eq([8, 1])
      expect(first).not_to include("▯")
      expect(`pdfinfo #{path}`).to match(/^Title:\s+Student passes of Year 7 Kestrel$/)
      expect(File.binread(path)).to include("/Lang (en-GB)")
    end
  end

  it "have the code that leads to the student's page" do
    *runs, side = cards.first.code
    dark = runs.flat_map { |row, from, length| Array.new(length) { |at| [row, from + at] } }
    modules = RQRCodeCore::QRCode.new("https://amber.example/pass/PHNQTGQKHMX3").modules
    expect(side).to eq(modules.length)
    expect(dark).to eq((0...side).to_a.product((0...side).to_a).select { |row, column| modules[row][column] })
  end
end

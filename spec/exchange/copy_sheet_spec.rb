# frozen_string_literal: true

RSpec.describe Roost::Exchange::CopySheet do
  # @return [String] what stands on the pages
  def words(pdf)
    Tempfile.create(["copy", ".pdf"], binmode: true) do |file|
      file.write(pdf)
      file.flush
      pages = Roost::Exchange::Pdf.new(file.path).pages.value
      (1..pages).map { |number| Roost::Exchange::Pdf.new(file.path).text(number) }.join("\n")
    end
  end

  def page(**parts) = { heading: "", texts: [], pictures: [], rows: [] }.merge(parts)

  it "sets what was asked, given, right and why, whatever is written in it" do
    text = <<~MARKDOWN
      Look **closely** at <b>it</b> & think:

      - heron
      - bittern
        1. small

      > quoted

      | a | b |
      |---|---|
      | c | d |

      `x<y`
    MARKDOWN
    rows = [{ is: :given, text: "Swallow & Ласточка" }, { is: :why, markdown: "They **eat**." }]
    answered = page(heading: "Two", rows: rows)
    pages = [page(heading: "Who <stays>?", texts: [text]), answered]
    said = words(described_class.pdf({ title: "Birds ◐", about: "Ada Ωß", pages: pages }))
    expect(said).to include("Birds ◐", "Ada Ωß", "Who <stays>?", "closely", "• heron", "1. small", "quoted", "x<y")
    expect(said).to include("Swallow & Ласточка", "They eat.")
    expect(said).not_to match(/\*\*|<b>|can't be set/)
  end

  it "puts a box where something can't be set, and says once what that means" do
    rows = ["A 🐦 on a wire", "خرج", "燕子", "fine"].map { |text| { is: :given, text: text } }
    said = words(described_class.pdf({ title: "Birds", about: "", pages: [page(rows: rows)] }))
    expect(said.scan("can't be set on paper").length).to eq(1)
    expect(said).to include("A ▯ on a wire", "fine")
    expect(said.scan("▯").length).to eq(4)
    expect(said).not_to match(/🐦|خ|燕/)
  end

  it "goes on over as many pages as it takes, and is nothing where a picture can't be read" do
    pages = Array.new(60) { |at| page(heading: "Slide #{at}", texts: ["word " * 200]) }
    expect(words(described_class.pdf({ title: "Long", about: "", pages: pages }))).to include("Slide 0", "Slide 59")
    Tempfile.create(["broken", ".jpg"]) do |file|
      expect(described_class.pdf({ title: "x", about: "", pages: [page(pictures: [file.path])] })).to be_nil
    end
  end
end

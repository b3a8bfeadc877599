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
    expect(said).not_to match(/\*\*|<b>|could not be set/)
  end

  # How much ink there is on the first page, in dark dots of 72 an inch.
  def ink(pdf)
    Tempfile.create(["copy", ".pdf"], binmode: true) do |file|
      file.write(pdf)
      file.flush
      drawn = Roost::Exchange::Pdf.new(file.path).picture(1)
      Vips::Image.new_from_buffer(drawn, "").colourspace("b-w")[0].<(128).avg
    end
  end

  def answered(*texts)
    rows = texts.map { |text| { is: :given, text: text } }
    described_class.pdf({ title: "Birds", about: "", pages: [page(rows: rows)] })
  end

  it "sets an answer in any script, joined and turned as it is written" do
    texts = ["A 🐦 on a wire", "خرج الطائر", "燕子飞回来", "पक्षी उड़ गया", "นกบิน"]
    blank = ink(answered("", "", "", "", ""))
    expect(texts.map { |text| ink(answered(text, "", "", "", "")) }).to all(be > blank * 1.05)
    said = words(answered(*texts, "fine"))
    expect(said).to include("fine")
    expect(said).not_to match(/▯|could not be set/)
  end

  it "sets what is marked over several lines, some of them in such a script" do
    texts = ["**خرج الطائر\nLook closely** at it & <wait>"]
    said = words(described_class.pdf({ title: "Birds", about: "", pages: [page(texts: texts)] }))
    expect(said).to include("Look closely", "at it &")
    expect(said).not_to match(/▯|could not be set|\*\*/)
  end

  it "sets a long answer in such a script over as many pages as it takes, and no more" do
    pdf = answered("燕子 " * 1500)
    expect(Tempfile.create(["copy", ".pdf"], binmode: true) do |file|
      file.write(pdf)
      file.flush
      Roost::Exchange::Pdf.new(file.path).pages.value
    end).to be_between(2, 4)
  end

  it "puts a box where there is more to draw than it may, and says once what that means" do
    stub_const("#{described_class}::Paper::MOST_DRAWN", 1)
    texts = %w[燕 鹭 燕 鹰].map { |text| { "is" => "given", "text" => text } }
    copy = { "title" => "Birds", "about" => "", "pages" => [JSON.parse(JSON.generate(page(rows: []))).merge("rows" => texts)] }
    said = words(described_class::Paper.pdf(copy))
    expect(said.scan("could not be set on paper").length).to eq(1)
    expect(said.scan("▯").length).to eq(3) # two of them, and the note
  end

  it "has a title and a language" do
    Tempfile.create(["copy", ".pdf"], binmode: true) do |file|
      file.write(answered("燕子"))
      file.flush
      expect(`pdfinfo #{file.path}`).to match(/^Title:\s+Birds$/)
      expect(File.binread(file.path)).to include("/Lang (en-GB)")
    end
  end

  it "goes on over as many pages as it takes, and is nothing where a picture can't be read" do
    pages = Array.new(60) { |at| page(heading: "Slide #{at}", texts: ["word " * 200]) }
    expect(words(described_class.pdf({ title: "Long", about: "", pages: pages }))).to include("Slide 0", "Slide 59")
    Tempfile.create(["broken", ".jpg"]) do |file|
      expect(described_class.pdf({ title: "x", about: "", pages: [page(pictures: [file.path])] })).to be_nil
    end
  end
end

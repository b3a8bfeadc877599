# frozen_string_literal: true

require "tempfile"
require "zip"

RSpec.describe "Slides that somebody else made" do
  def rels(*targets)
    links = targets.each_with_index.map { |target, place| %(<Relationship Id="rId#{place + 1}" Target="#{target}"/>) }
    "<Relationships>#{links.join}</Relationships>"
  end

  def shape(type, *lines)
    runs = ->(line) { line.split("|").map { |run| "<a:r><a:t>#{run}</a:t></a:r>" }.join("<a:br/>") }
    paragraphs = lines.map { |line| "<a:p>#{runs.call(line)}</a:p>" }
    %(<p:sp><p:nvSpPr><p:nvPr><p:ph type="#{type}"/></p:nvPr></p:nvSpPr><p:txBody>#{paragraphs.join}</p:txBody></p:sp>)
  end

  def page(*shapes, show: nil)
    names = 'xmlns:a="a" xmlns:p="p" xmlns:r="r"'
    %(<p:sld #{names}#{%( show="#{show}") if show}><p:cSld><p:spTree>#{shapes.join}</p:spTree></p:cSld></p:sld>)
  end

  def zipped(parts)
    Zip::OutputStream.write_buffer do |zip|
      parts.each { |name, text| zip.put_next_entry(name) && zip.write(text) }
    end.string
  end

  let(:presentation) do
    ids = %w[rId2 rId1 rId3].map { |id| %(<p:sldId id="25#{id[-1]}" r:id="#{id}"/>) }.join
    zipped("ppt/presentation.xml" => %(<p:presentation xmlns:p="p" xmlns:r="r"><p:sldIdLst>#{ids}</p:sldIdLst></p:presentation>),
           "ppt/_rels/presentation.xml.rels" => rels("slides/slide1.xml", "slides/slide2.xml", "slides/slide3.xml"),
           "ppt/slides/slide1.xml" => page(shape("title", "Who stays"), shape("body", "Herons")),
           "ppt/slides/_rels/slide1.xml.rels" => rels("../slideLayouts/a.xml"),
           "ppt/slides/slide2.xml" => page(shape("ctrTitle", "Birds that cross the marsh|on their way", "to the sea")),
           "ppt/slides/_rels/slide2.xml.rels" => rels("../notesSlides/notesSlide1.xml"),
           "ppt/notesSlides/notesSlide1.xml" => page(shape("sldNum", "1"), shape("body", "Ask who has seen one.", "Wait.")),
           "ppt/slides/slide3.xml" => page(shape("title", "Hidden"), show: "0"),
           "ppt/slides/_rels/slide3.xml.rels" => rels)
  end

  def outline(bytes)
    Tempfile.create(["slides", ".pptx"], binmode: true) do |file|
      file.write(bytes)
      file.flush
      Roost::Exchange::Presentation.outline(file.path)
    end
  end

  it "have their whole titles and their notes, in their order, without hidden ones" do
    expect(outline(presentation)).to eq([["Birds that cross the marsh on their way to the sea", "Ask who has seen one.\nWait."],
                                         ["Who stays", ""]])
    expect([outline("PK\x03\x04 no"), outline(zipped("a" => "b"))]).to eq([[], []])
  end

  it "have letters where the file has signs of its own" do
    said = { "The ﬁrst ﬂight oﬀ the eﬃgy" => "The first flight off the effigy", "caf´e and na¨ıve" => "café and naïve",
             "mi\u00ADgra\u00ADtion" => "migration", "\uF001nd the \uF002ock\uE123" => "find the flock",
             "¨Uber 3\u00A0km" => "Über 3 km",
             "5° and ½" => "5° and ½" }
    expect(said.keys.map { |text| Roost::Exchange::PageText.plain(text) }).to eq(said.values)
  end

  it "are told apart where they are locked" do
    locked = StringIO.new("\xD0\xCF\x11\xE0".b + "EncryptedPackage".encode("UTF-16LE").b)
    expect(Roost::Exchange::Presentation.locked?(locked)).to be(true)
    expect(Roost::Exchange::Presentation.locked?(StringIO.new("PK\x03\x04"))).to be(false)
  end
end

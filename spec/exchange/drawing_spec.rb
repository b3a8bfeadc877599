# frozen_string_literal: true

require "tempfile"

# Drawings as drawing programs save them.
RSpec.describe Roost::Exchange::Drawing do
  def read(inner, root: 'viewBox="0 0 100 80"')
    Tempfile.create(["drawing", ".svg"]) do |file|
      file.write(%(<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" #{root}>#{inner}</svg>))
      file.flush
      described_class.read(file.path).value
    end
  end

  def element(svg, name) = Nokogiri::XML(svg).remove_namespaces!.at_xpath("//#{name}")

  def photograph = Vips::Image.black(40, 30, bands: 3).cast(:uchar).jpegsave_buffer

  it "keeps its colours, whether a style sheet, a class, an id or the element says them" do
    svg = read(<<~SVG).svg
      <style>/* made elsewhere */ .st0{fill:#112233;stroke:#fff} #bird{stroke:#445566 !important} rect.st0{opacity:.5} path{fill:red}
        @import url(https://elsewhere.example/x.css); .wing:hover{fill:blue} .st1,.st2{fill-rule:evenodd}</style>
      <rect class="st0" id="bird" fill="green"/>
      <path class="st2" style="fill:none; stroke-width: 2px; behavior:url(x)"/><circle class="wing"/>
    SVG
    expect(element(svg, "rect").to_h).to eq("id" => "bird", "fill" => "#112233", "stroke" => "#445566", "opacity" => ".5")
    expect(element(svg, "path").to_h).to eq("fill" => "none", "fill-rule" => "evenodd", "stroke-width" => "2px")
    expect(element(svg, "circle").to_h).to eq({})
    expect(svg).not_to include("style")
  end

  it "lets nothing in by way of a style" do
    svg = read("<style>rect{fill:url(https://elsewhere.example/x);stroke:url(#own);mask:url(javascript:x)}</style><rect/>").svg
    expect(element(svg, "rect").to_h).to eq("stroke" => "url(#own)")
  end

  it "keeps pictures of pixels that are inside it, encoded anew, and leaves out those that are not" do
    inside = %(<image x="1" width="9" height="9" xlink:href="data:image/jpeg;base64,#{[photograph].pack("m")}" onload="x()"/>)
    kept = read("#{inside}<image href='https://elsewhere.example/a.png'/>")
    image = element(kept.svg, "image")
    expect(image.keys).to contain_exactly("x", "width", "height", "href")
    expect(Vips::Image.new_from_buffer(image["href"].split(",").last.unpack1("m"), "").size).to eq([40, 30])
    expect(kept.lost).to eq(["pictures that are not in the file"])
    broken = read('<image href="data:image/png;base64,AAAA"/>')
    expect([element(broken.svg, "image")["href"], broken.lost]).to eq(["data:,", ["pictures that can't be read"]])
  end

  it "says what could not be kept" do
    said = read("<script>x</script><filter id='f'/><g><animate/><foreignObject/></g><metadata/><rect/>").lost
    expect(said).to contain_exactly("scripts", "shadows and blurs", "movement", "text laid out by a web page")
  end

  it "keeps of a choice the text that a browser would show, and what is inside a link" do
    kept = read(<<~SVG)
      <switch><foreignObject width="9"><p xmlns="http://www.w3.org/1999/xhtml">Reed</p></foreignObject><text x="3">Reed bed</text></switch>
      <switch><text systemLanguage="de">Schilf</text><text>Sedge</text></switch>
      <switch><switch><foreignObject/><text>Rush</text></switch></switch>
      <a xlink:href="https://elsewhere.example/"><text>Marsh</text></a><switch><foreignObject/></switch>
    SVG
    expect(Nokogiri::XML(kept.svg).text.split("\n").map(&:strip).reject(&:empty?)).to eq(["Reed bed", "Sedge", "Rush", "Marsh"])
    expect(kept.svg).not_to match(/switch|<a|elsewhere/)
    expect(kept.lost).to eq(["text laid out by a web page"])
  end

  it "does no more work for more rules than for more bytes" do
    many = (1..3000).map { |number| ".c#{number}{fill:red}" }.join
    drawn = read("<style>#{many}</style>#{'<rect class="c1 c2 c3"/>' * 4000}")
    expect(drawn.svg.scan('fill="red"').length).to eq(4000)
  end

  it "refuses what uses itself up to ten thousand million parts, at once, and takes what is used often but not too often" do
    chain = lambda do |depth, width|
      (1..depth).map { |at| %(<g id="g#{at}">#{%(<use xlink:href="#g#{at - 1}"/>) * width}</g>) }.join
    end
    defs = lambda do |depth, width|
      %(<defs><rect id="g0" width="1" height="1"/>#{chain.call(depth, width)}</defs><use xlink:href="#g#{depth}"/>)
    end
    expect(read(defs.call(10, 10))).to be_nil
    expect(read(%(<defs><pattern id="p">#{"<rect/>" * 3000}</pattern></defs>#{'<rect fill="url(#p)"/>' * 3000}))).to be_nil
    expect(element(read(defs.call(2, 10)).svg, "use")).not_to be_nil
    expect(read(%(<g id="a"><use xlink:href="#b"/></g><g id="b"><use xlink:href="#a"/></g>)).svg).to include("use")
  end

  describe "kept by a teacher" do
    let(:keeping) { Roost::Operations::KeepPicture.new }

    it "has its remark with it, as a picture that moves has" do
      email = "d#{SecureRandom.hex(6)}@heronsgate.example"
      account = Roost::Store::Accounts.new.create(email: email, name: "D", password_hash: "x")
      svg = %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><script/><rect/></svg>)
      expect(keeping.call(account, StringIO.new(svg), "wing.svg")).to be_ok
      expect(keeping.remark).to eq("“wing.svg” is kept without what can't be shown here: scripts.")
      frames = Vips::Image.arrayjoin(Array.new(3) { |shade| Vips::Image.black(20, 10, bands: 3) + (shade * 80) }, across: 1)
      moving = frames.cast(:uchar).copy(interpretation: :srgb).mutate { |image| image.set_type!(GObject::GINT_TYPE, "page-height", 10) }
      other = Roost::Operations::KeepPicture.new
      expect(other.call(account, StringIO.new(moving.webpsave_buffer), "flock.webp")).to be_ok
      expect(other.remark).to start_with("“flock.webp” moves;")
    end
  end
end

# frozen_string_literal: true

RSpec.describe Roost::Web::Strokes do
  def stroke(**parts) = { "tool" => "pen", "colour" => "ink", "points" => [0, 0, 10, 10] }.merge(parts.transform_keys(&:to_s))

  def drawn(*strokes) = Nokogiri::HTML5.fragment("<svg>#{described_class.svg(strokes)}</svg>").at("svg")

  it "draws every tool and every sticker of the sketch" do
    Roost::Core::Drawing::Strokes::TOOLS.each_key do |tool|
      svg = drawn(stroke(tool: tool, text: "a<b", sticker: "star"))
      expect(svg.element_children).not_to be_empty
      expect(svg.to_html).not_to include("a<b")
    end
    expect(described_class::STICKERS.keys).to eq(Roost::Core::Drawing::Strokes::STICKERS)
  end

  it "gives an arrow a head, and shapes their corners whichever way they were drawn" do
    expect(drawn(stroke(tool: "arrow", points: [0, 0, 100, 0])).css("polyline").last["points"]).to eq("70,-16 100,0 70,16")
    expect(drawn(stroke(tool: "rectangle", points: [90, 80, 10, 20])).at("rect").to_h.slice("x", "y", "width", "height").values)
      .to eq(%w[10 20 80 60])
    expect(drawn(stroke(tool: "ellipse", points: [0, 0, 20, 10])).at("ellipse")["rx"]).to eq("10")
  end

  it "makes a line wider where the pen was pressed, without a gap" do
    lines = drawn(stroke(points: [0, 0, 10, 0, 20, 0, 30, 0], pressure: [2, 2, 7, 7])).css("polyline")
    expect(lines.map { |line| [line["points"], line["stroke-width"]] }).to eq([["0,0 10,0", "3"], ["10,0 20,0 30,0", "8"]])
  end
end

RSpec.describe "A sketch as a file" do
  let(:account) { teacher }

  it "can be saved as SVG and as PNG, with the picture that lies under it" do
    drawing = StringIO.new(File.read(File.join(Roost::Settings::ROOT, "demo/pictures/wing.svg")))
    picture = Roost::Operations::KeepPicture.new.call(account, drawing, "wing.svg").value
    prompt = sketch(id: "p1", over_picture: true)
    session = kept_session(account,
                           Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: prompt, pictures: [picture])]))
    seat = take_seat(session, "Ada").first
    command(session, "begin")
    save(session, seat, "s1", { "strokes" => [JSON.generate([{ tool: "arrow", colour: "rust", points: [0, 0, 600, 450] }])] })
    sign_in
    get "/results/#{session.id}/students/#{seat[:id]}"
    expect(Nokogiri::HTML(last_response.body).css("a").map { |link| link.text.split.join(" ") }).to include("Save as PNG")
    get "/results/#{session.id}/students/#{seat[:id]}/s1.svg"
    expect(last_response.headers["content-disposition"]).to include("Birds of the marsh Ada.svg")
    expect(last_response.body).to include("data:image/svg+xml;base64,", "polyline")
    get "/results/#{session.id}/students/#{seat[:id]}/s1.png"
    png = Vips::Image.new_from_buffer(last_response.body, "")
    expect([png.width, png.height]).to eq([1200, 900])
    expect(get("/results/#{session.id}/students/#{seat[:id]}/s9.png").status).to eq(404)
  end

  it "draws a dot for a stroke of one point, and escapes text" do
    strokes = [{ "tool" => "pen", "colour" => "ink", "points" => [5, 6] },
               { "tool" => "text", "colour" => "ink", "points" => [1, 1], "text" => "\"<&" }]
    expect(Roost::Web::Strokes.svg(strokes)).to include('points="5,6 5,6"', "&quot;&lt;&amp;")
  end
end

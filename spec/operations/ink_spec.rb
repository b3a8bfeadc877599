# frozen_string_literal: true

RSpec.describe "What the pen draws" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }
  let(:ink) { Roost::Operations::DrawInk.new }
  let(:stroke) do
    { "page" => "s1", "stroke" => "abcdef123456", "part" => "0", "colour" => "1", "width" => "0", "points" => "10,20 30,40" }
  end

  before do
    command(session, "begin")
    command(session, "pen")
  end

  def kept(page = "s1") = Roost::Store::Ink.new.of(session.id, page)

  def draw(account: self.account, **changed) = ink.draw(account, session.id, stroke.merge(changed.transform_keys(&:to_s)))

  it "is kept part by part, once each, in the order of the parts" do
    draw(part: "1", points: "50,60")
    2.times { draw }
    parts = [[0, [10, 20, 30, 40]], [1, [50, 60]]]
    expect(kept.map(&:to_h)).to eq([{ stroke: "abcdef123456", colour: 1, width: 0, parts: parts }])
    ink.erase(account, session.id, "abcdef123456")
    expect(kept).to eq([])
  end

  it "is the teacher's alone, while the session runs, on a page over which the pen has been" do
    expect(draw(account: teacher(email: "moss@heronsgate.example"))).to be_nil
    expect(draw(page: "s2").reason).to eq("The pen isn't out on that page.")
    command(session, "next")
    expect(draw(page: "s2")).to be_ok
    command(session, "end")
    expect(draw.reason).to eq("This session has ended.")
  end

  it "is bounded in everything, and refused in one sentence" do
    [{ points: "" }, { points: "1,2 x" }, { points: (["1,1"] * 101).join(" ") }, { stroke: "short" }, { stroke: "a" * 41 },
     { part: "400" }, { part: "-1" }, { colour: "4" }, { width: "2" }, { points: "1 2" },
     { stroke: "<script>x" }].each do |changed|
      expect([changed, draw(**changed)&.reason]).to eq([changed, "That stroke could not be read. Reload the page."])
    end
    draw(points: "99999,99999 -5,-5")
    expect(kept.first.parts).to eq([[0, [1280, 600, 0, 0]]])
    stub_const("Roost::Core::Session::Ink::MOST_PIECES", 1)
    expect(draw(stroke: "another-stroke").reason).to eq("This page is full. Take a blank one.")
    expect(ink.point(account, session.id, "1,2,3").reason).to start_with("That stroke could not be read.")
    expect(ink.erase(account, session.id, "%").reason).to start_with("That stroke could not be read.")
  end

  it "goes over blank pages, made once for a click that came twice, and no more than forty" do
    2.times { command(session, "board", paper: "ruled", after: "0") }
    state = moment(session).state
    expect([state.boards, state.board, state.inked]).to eq([["ruled"], 0, %w[s1 board-1]])
    expect(draw(page: "board-1")).to be_ok
    expect(command(session, "board", paper: "silk").reason).to eq("There is no such paper. Reload the page.")
    39.times { command(session, "board", paper: "plain") }
    expect(command(session, "board", paper: "plain").reason).to eq("40 blank pages is the most in one session.")
    command(session, "next")
    expect([moment(session).state.board, moment(session).state.pen]).to eq([nil, true])
  end

  it "is told to who may see the session, and of pages over which the pen has been" do
    draw
    seat, token = take_seat(session, "Ada")
    expect(seat).to be_a(Hash)
    path = "/seat/#{token}/ink?page=s1"
    app = Rack::MockRequest.new(Front::APP)
    expect(JSON.parse(app.get(path).body).map { |each| each["stroke"] }).to eq(["abcdef123456"])
    expect(JSON.parse(app.get("/screen/#{session.screen_key}/ink?page=s1").body).length).to eq(1)
    expect(app.get("/seat/#{token}/ink?page=s2").body).to eq("[]")
    expect([app.get("/seat/nobody/ink?page=s1"), app.get("/screen/nobody/ink")].map(&:status)).to eq([404, 404])
  end
end

# frozen_string_literal: true

RSpec.describe "A sitting by its address" do
  let(:lesson) do
    question = ->(at) { choice(id: "p#{at}", keys: %w[o1], explanation: "Insects.") }
    asked = Array.new(3) { |at| slide("q#{at}", heading: "Q#{at}", prompt: question.call(at)) }
    Roost::Core::Lesson.new(title: "Birds", slides: asked, sections: [section("quiz1", "quiz", %w[q0 q1 q2], **rules)])
  end
  let(:rules) { {} }
  let(:session) { kept_session(teacher, lesson).tap { |row| command(row, "begin") } }
  let(:token) { take_seat(session).last }

  it "gives slides to keep without noting anything, and holds up a seat that asks too fast" do
    expect(get("/sitting/#{token}/slides/1").status).to eq(204)
    expect(Roost::Store::Sittings.new.of(session.id, "quiz1")).to eq([])
    get "/sitting/#{token}"
    sitting = -> { Roost::Store::Sittings.new.of(session.id, "quiz1").first.sitting }
    expect(get("/sitting/#{token}/slides/3").body).to include("Q2")
    expect([sitting.call.place, sitting.call.seen]).to eq([1, %w[q0]])
    refused = (1..200).find { get("/sitting/#{token}").status == 429 } # a loaded machine asks slowly
    expect(refused).to be > 10
    expect(get("/sitting/#{take_seat(session, "Bo").last}").status).to eq(200)
  end

  it "says of every question how it went, also of those that were not reached, once the quiz is closed" do
    get "/sitting/#{token}"
    command(session, "close")
    page = -> { Nokogiri::HTML5.fragment(get("/sitting/#{token}").body) }
    expect([page.call.at_css("[data-soon]"), page.call.css(".told").length]).to match([be, 0])
    database[:sittings].update(window_ends_at: Sequel.lit("window_ends_at - interval '2 seconds'"))
    expect(page.call.css(".told .outcome").map do |each|
      each.text.strip
    end).to eq(["– No answer", "· Not reached", "· Not reached"])
  end

  it "shows nothing of the others where nothing is shared, or before one has begun" do
    get "/sitting/#{token}"
    expect(["/others/1", "/others/0", "/others/x"].map { |path| get("/sitting/#{token}#{path}").status }).to eq([404] * 3)
    expect(get("/sitting/#{take_seat(session, "Bo").last}/others/1").status).to eq(404)
  end

  it "draws the running totals of a round to one scale, from nothing on, with the bird at the end" do
    step = Roost::Core::Game::Comparison::Step
    totals = Roost::Web::RunningTotals.new([step.new(total: 0, total_before: 100), step.new(total: 100, total_before: 200)])
    expect(totals.line(:total)).to eq("10.0,100.0 150.0,100.0 290.0,65.0")
    expect(totals.line(:total_before)).to eq("10.0,100.0 150.0,65.0 290.0,30.0")
    expect(totals.bird).to eq([276.0, 41.0])
  end

  it "says how a round went beside last time, and beside nobody the first time" do
    round = Roost::Core::Lesson.new(title: "Round", slides: lesson.slides, sections: [section("r1", "game", %w[q0 q1])])
    account = teacher
    hours = ->(more) { (Time.now.utc + (more * 3600)).strftime("%Y-%m-%dT%H:%M") }
    form = { "opens_at" => hours.call(-1), "closes_at" => hours.call(2), "feedback" => "right", "attempts" => "2" }
    row = Roost::Operations::AssignLesson.new.call(account, kept_lesson(account, round), form).value
    seat, token = take_seat(row, "Ada")
    expect(get("/sitting/#{token}").body).to include("2 of them are played for points")
    said = %w[o2 o1].each_with_index.map do |pick, at|
      post("/sitting/#{token}/begin")
      save(row, seat, "q0", { "options" => [pick] }, attempt: at + 1, final: true)
      post("/sitting/#{token}/hand-in")
      Nokogiri::HTML5.fragment(last_response.body).at_css(".round p").text.gsub(/\s+/, " ").strip
    end
    expect(get(Nokogiri::HTML5.fragment(last_response.body).at_css("a[href^='/copy/']")["href"]).body).to include("Grey heron")
    expect(said).to eq(["0 points.", "100 points, 100 points more than last time. That is your best so far."])
  end

  context "when a question has to be answered before the next" do
    let(:rules) { { must_answer: true, feedback: "explained" } }

    it "gives nothing ahead, and says neither what is right nor why before it is settled" do
      get "/sitting/#{token}"
      ahead = [3, 99, 1].map { |place| get("/sitting/#{token}/slides/#{place}") }
      expect(ahead.map { |said| [said.status, said.body] }).to eq([[204, ""]] * 3)
      body = get("/sitting/#{token}").body
      expect(body).to include('id="slide-q0"')
      expect(body).not_to include("Insects.")
      expect(post("/sitting/#{token}/place?to=3").body).to include('id="slide-q0"')
      expect(get("/sitting/unknown").status).to eq(404)
    end
  end
end

# frozen_string_literal: true

RSpec.describe "Safety at the edge" do
  let(:account) { teacher }

  it "sends a strict policy with every page and allows no inline script" do
    ["/", "/sign-in", "/nowhere", "/assets/none.js"].each do |path|
      get path
      expect(last_response.headers["content-security-policy"]).to include("default-src 'none'", "script-src 'self';")
      expect(last_response.headers).to include("x-content-type-options" => "nosniff", "referrer-policy" => "no-referrer",
                                               "cache-control" => "no-store")
      expect(last_response.body).not_to match(/<script(?![^>]*src=)/)
    end
  end

  it "sends nobody to a place that a header names" do
    account
    get "/lessons", {}, "HTTP_X_FORWARDED_HOST" => "elsewhere.example", "HTTP_HOST" => "elsewhere.example"
    expect(last_response.headers["location"]).to eq("/sign-in")
    sign_in
    post "/lessons", { "title" => "Marsh", "authenticity_token" => @token }, "HTTP_X_FORWARDED_HOST" => "elsewhere.example"
    expect(last_response.headers["location"]).to match(%r{\A/lessons/\d+\z})
  end

  it "tells browsers to stay with https where people come by it, and only there" do
    expect(get("/").headers).not_to have_key("strict-transport-security")
    allow(Roost.settings).to receive(:secure?).and_return(true)
    secure = Roost::Web::Application.build(Front::ENGINE)
    expect(secure.call(Rack::MockRequest.env_for("/"))[1]["strict-transport-security"]).to start_with("max-age=")
  end

  it "asks who you are on every teacher's page" do
    %w[/lessons /lessons/1 /desk/1 /results /results/1].each do |path|
      get path
      expect(last_response.headers["location"]).to end_with("/sign-in")
    end
  end

  it "does not find what belongs to another teacher" do
    session = kept_session(account)
    seat = take_seat(session).first
    command(session, "begin")
    command(session, "end")
    teacher(email: "rowe@heronsgate.example", name: "Mr Rowe")
    sign_in("rowe@heronsgate.example")
    lesson = session.lesson_id
    klass = Roost::Operations::KeepClass.new.create(account, { "name" => "Year 7 Kestrel" }).value
    ["/classes/#{klass}", "/classes/#{klass}/passes", "/classes/#{klass}/passes.file",
     "/lessons/#{lesson}", "/lessons/#{lesson}/start", "/desk/#{session.id}", "/desk/#{session.id}/screen",
     "/results/#{session.id}", "/results/#{session.id}/questions", "/results/#{session.id}/students/#{seat[:id]}",
     "/results/#{session.id}/results.csv",
     "/stream/desk/#{session.id}", "/lessons/abc", "/results/999"].each do |path|
      expect([path, get(path).status]).to eq([path, 404])
    end
    ["/lessons/#{lesson}/title", "/lessons/#{lesson}/slides/s1", "/lessons/#{lesson}/delete", "/lessons/#{lesson}/undo",
     "/classes/#{klass}/passes", "/desk/#{session.id}/commands", "/results/#{session.id}/delete"].each do |path|
      expect([path, post_form(path, title: "Mine", command: "next", rev: 1).status]).to eq([path, 404])
    end
    expect(Roost::Store::Lessons.new.find(account, lesson).revision).to eq(1)
  end

  it "refuses a form without its token" do
    account
    sign_in
    post "/lessons", { "title" => "From elsewhere" }
    expect(last_response.status).to eq(403)
    expect(database[:lessons].count).to eq(0)
  end

  it "knows no seat by a guessed token" do
    kept_session(account)
    get "/seat/AAAAAAAAAAAAAAAAAAAAAA"
    expect(last_response.status).to eq(404)
    expect(get("/stream/seat/AAAAAAAAAAAAAAAAAAAAAA").status).to eq(404)
    expect(post("/answers/AAAAAAAAAAAAAAAAAAAAAA", "{}").status).to eq(404)
  end

  it "cleans script out of names, headings and Markdown" do
    text = "**bold** <script>alert(2)</script> [x](javascript:alert(3)) <b onclick=alert(4)>b</b>"
    bad = slide("s1", heading: "<img src=x onerror=alert(1)>", text: text)
    lesson = Roost::Core::Lesson.new(title: "<script>alert(1)</script>", slides: [bad])
    session = kept_session(account, lesson)
    _seat, token = take_seat(session, "<script>alert(5)</script>")
    command(session, "begin")
    get "/seat/#{token}"
    expect(last_response.body).to include("<strong>bold</strong>", "&lt;script&gt;alert(5)")
    expect(last_response.body).not_to match(/<script>|<img src=x|javascript:|onclick/)
  end

  it "shows a text nested deeper than a page can be as it was written" do
    { "<b>" * 420 => "&lt;b&gt;" * 420, ">" * 2_000 => "&gt;" * 2_000,
      "<div>" * 900 => "&lt;div&gt;" * 900 }.each do |text, written|
      html = Roost::Web::Markdown.html("#{text}marsh $x^2$")
      expect(html).to include("#{written}marsh", "<tex-formula")
      expect(html).not_to match(/<b>|<div>|<blockquote>/)
    end
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: "Deep", slides: [slide("s1", text: "<b>" * 420)]))
    sign_in
    pages = ["/lessons/#{lesson}", "/lessons/#{lesson}/preview/seat?slide=s1"].map { |path| get(path) }
    expect(pages.map(&:status)).to eq([200, 200])
    expect(pages.map(&:body)).to all(include("&lt;b&gt;" * 420))
  end

  it "shows a table of too many cells, and a formula too large to set, as they were written" do
    table = ->(rows, columns) { "#{"|a" * columns}|\n#{"|-" * columns}|\n#{"|\n" * rows}" }
    expect(Roost::Web::Markdown.html(table.call(9, 90))).to include("<table>")
    html = Roost::Web::Markdown.html(table.call(300, 300))
    expect(html).not_to include("<table>")
    expect(html.length).to be < 20_000
    html = Roost::Web::Markdown.html("Look: $#{"\\frac{1}{" * 150}x#{"}" * 150}$ and $x^2$")
    expect(html.scan("<tex-formula").length).to eq(1)
    expect(html).to include("Look: $\\frac{1}{")
  end

  describe "answers" do
    let(:session) { kept_session(account) }

    before do
      command(session, "begin")
      command(session, "jump", slide: "s4")
    end

    def send_answer(body) = post("/answers/#{take_seat(session).last}", body)

    it "acknowledges one, and refuses bad input with one sentence each" do
      expect(JSON.parse(send_answer(JSON.generate(message("s4", { "text" => ["the stars"] }))).body)["state"]).to eq("final")
      ["", "{", "[]", "null", "[" * 50, JSON.generate(message("s4", { "text" => ["x" * 240_000] })),
       JSON.generate(message("s4", { "text" => [["x"]] })), "\xFF\xFE"].each do |body|
        reply = send_answer(body)
        expect([body[0, 20], reply.status]).to eq([body[0, 20], reply.status]).and(satisfy {
          reply.status.between?(400, 422)
        })
        expect(JSON.parse(reply.body)["message"]).to be_a(String)
      end
      expect(send_answer("x" * 2_000_000).status).to eq(413)
      expect(database[:answers].count).to eq(1)
    end
  end

  it "tells a device to keep its answer and try again when it cannot be stored" do
    session = kept_session(account)
    _seat, token = take_seat(session)
    command(session, "begin")
    command(session, "jump", slide: "s4")
    allow(Roost::Store::Answers).to receive(:new).and_raise(Sequel::DatabaseError, "PG::DiskFull")
    post("/answers/#{token}", JSON.generate(message("s4", { "text" => ["kept"] })))
    expect([last_response.status, JSON.parse(last_response.body)["state"]]).to eq([503, "unsent"])
  end

  it "tells a device to stop sending what the database will never take" do
    session = kept_session(account)
    _seat, token = take_seat(session)
    command(session, "begin")
    command(session, "jump", slide: "s4")
    allow(Roost::Core::Text).to receive(:read) { |raw, **| Roost::Core::Reading.ok(raw) }
    post("/answers/#{token}", JSON.generate(message("s4", { "text" => ["nul \u0000"] })))
    expect([last_response.status, JSON.parse(last_response.body)["state"]]).to eq([422, "refused"])
  end

  describe "joining from one address" do
    let(:session) { kept_session(account) }

    # Tries are counted by the minute of the wall clock, and the count is gone with it: here always a minute
    # that has just begun, whole.
    before { allow(Time).to receive(:now).and_return(Time.at(Time.now.to_i / 60 * 60)) }

    def join(code, name, address: "10.1.1.7") = post("/join", { "code" => code, "name" => name }, "REMOTE_ADDR" => address)

    it "turns away a hundred wrong codes, while a class of 35 behind it joins without trouble, in a lesson or an assignment" do
      wrong = Array.new(100) { |number| join("ZZZ#{format("%03d", number).tr("0125678", "ACDEFGH")}", "Imp").status }
      expect(wrong.count(429)).to be >= 75
      expect(last_response.body).to include("Too many wrong codes from here.")
      statuses = Array.new(35) { |number| join(session.code, "Student #{number}").status }
      expect(statuses).to all(eq(303))
    end

    it "turns away who sends no name a hundred and fifty-one times, and lets a class of 35 in" do
      wrong = Array.new(151) { join(session.code, " ").status }
      expect(wrong.tally).to eq({ 422 => 120, 429 => 31 })
      expect(Array.new(35) { |number| join(session.code, "Student #{number}").status }).to all(eq(303))
    end

    it "lets seven hundred of a session in within a minute, and others into another" do
      allow(Roost.settings).to receive(:joins_a_minute).and_return(7)
      command(session, "make_room", seats: "1500")
      expect(Array.new(9) { |number| join(session.code, "Imp #{number}").status }.tally).to eq({ 303 => 7, 429 => 2 })
      expect(join(session.code, "Bo", address: "10.1.1.8").status).to eq(303)
      expect(join(kept_session(account, may_change: false).code, "Bo").status).to eq(303)
      expect(Roost::Settings.new({}).joins_a_minute * 2).to be >= 1_200
    end

    it "says what to do about a wrong code and keeps what was typed" do
      join("ABC 999", "Bo")
      expect(last_response.body).to include("Check the board, or ask your teacher.", 'value="ABC 999"')
      join(session.code, "B" * 41)
      expect(last_response.body).to include("That name is too long", "value=\"#{"B" * 3}")
      join(session.code, " ")
      expect(last_response.body).to include("Type your name")
    end
  end
end

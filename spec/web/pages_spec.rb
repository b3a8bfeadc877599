# frozen_string_literal: true

RSpec.describe "Pages" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }

  def body = last_response.body

  it "of an assignment have no stream, and tell a browser not to ask again, also its teacher's" do
    account
    opens, closes = [-3600, 7200].map { |more| (Time.now.utc + more).strftime("%Y-%m-%dT%H:%M") }
    form = { "opens_at" => opens, "closes_at" => closes }
    row = Roost::Operations::AssignLesson.new.call(account, kept_lesson(account), form).value
    _seat, place = take_seat(row, "Ada")
    sign_in
    streams = %W[/stream/seat/#{place} /stream/screen/#{row.screen_key} /stream/desk/#{row.id}]
    expect(streams.map { |path| get(path).status }).to eq([204, 204, 204])
  end

  describe "the class screen" do
    def screen = get("/screen/#{session.screen_key}").body

    it "needs no sign-in, shows the code while joining, and no names unless the teacher wants them" do
      take_seat(session, "Cleo")
      expect(screen).to include(Roost::Core::JoinCode.spoken(session.code), "Cleo")
      shy = kept_session(account, names_shown: false)
      take_seat(shy, "Cleo")
      expect(get("/screen/#{shy.screen_key}").body).not_to include("Cleo")
    end

    it "hides the code after the lobby when the session says so" do
      hidden = kept_session(account, code_throughout: false)
      command(hidden, "begin")
      expect(get("/screen/#{hidden.screen_key}").body).not_to include(Roost::Core::JoinCode.spoken(hidden.code))
    end

    it "never carries the teacher's notes or the key before it is put up" do
      noted = marsh_lesson.replacing(marsh_lesson.slide("s3").with(notes: "Ask who has seen a fly"))
      live = kept_session(account, noted)
      _seat, token = take_seat(live)
      command(live, "begin")
      command(live, "jump", slide: "s3")
      ["/screen/#{live.screen_key}", "/seat/#{token}"].each do |path|
        get path
        expect(body).to include("Why do swallows leave?")
        expect(body).not_to match(/Ask who has seen|is-right|>right</)
      end
    end

    it "is not found by a guessed or broken key" do
      ["AAAAAAAAAAAAAAAAAAAAAA", "x", "%01"].each { |key| expect(get("/screen/#{key}").status).to eq(404) }
    end
  end

  describe "the front door" do
    it "asks by a link for what the session wants, and shows a QR code for it" do
      expect(get("/join/#{session.code.downcase}").body).to include("action=\"/join/#{session.code}\"", "Birds on the move")
      expect(get("/join/zzz99x").body).to include("value=\"zzz99x\"", "That code isn&#39;t open.")
      get "/join/#{session.code}.svg"
      expect(last_response.headers["content-type"]).to eq("image/svg+xml")
      expect(body).to include("<svg", "<path")
      expect(%w[ZZ9ZZ9 abc].map { |code| get("/join/#{code}.svg").status }).to eq([404, 404])
    end

    it "says of a page that isn't there where to go" do
      get "/nowhere"
      expect(last_response.status).to eq(404)
      expect(body).to include("That page isn&#39;t here", "To the front door")
    end
  end

  describe "the Desk" do
    before do
      session
      sign_in
    end

    def give(**fields)
      post("/desk/#{session.id}/commands", fields.transform_keys(&:to_s), "HTTP_X_CSRF_TOKEN" => @token,
"HTTP_HX_REQUEST" => "true")
    end

    it "carries out commands and answers with nothing, or with the one sentence of a refusal" do
      expect(give(command: "begin").status).to eq(204)
      expect(give(command: "open").status).to eq(422)
      expect(body).to include("This slide has no question.")
      expect(give(command: "destroy").status).to eq(422)
    end

    it "says in one sentence, not with a page, that a session is gone" do
      post("/desk/0/commands", { "command" => "next" }, "HTTP_X_CSRF_TOKEN" => @token, "HTTP_HX_REQUEST" => "true")
      expect(last_response.status).to eq(404)
      expect(body).to start_with('<p class="refusal"')
    end

    it "gives a sketch as a picture, and nothing for kinds that are none" do
      seat = take_seat(session).first
      command(session, "begin")
      command(session, "jump", slide: "s5")
      strokes = [{ "tool" => "text", "colour" => "rust", "points" => [1, 2], "text" => "<b>wing</b>" }]
      save(session, seat, "s5", { "strokes" => [JSON.generate(strokes)] })
      address = ->(slide_id) { "/given/#{Roost::Web::AnswerPictures.ids.encode(seat[:id], slide_id)}" }
      get address.call("s5")
      expect(last_response.headers["content-type"]).to start_with("image/svg+xml")
      expect(body).to include("&lt;b&gt;wing&lt;/b&gt;")
      command(session, "jump", slide: "s4")
      save(session, seat, "s4", { "text" => ["words"] })
      expect(get(address.call("s4")).status).to eq(404)
      get "#{address.call("s5")}?w=400"
      expect(last_response.body.b).to start_with("\x89PNG".b)
      expect(["/given/x", "/given/#{"A" * 22}", "/given/12"].map { |path| get(path).status }).to all(eq(404))
    end

    it "leads to the class screen and to a running session" do
      get "/desk/#{session.id}/screen"
      expect(last_response.headers["location"]).to end_with("/screen/#{session.screen_key}")
      get "/today"
      expect(body).to include("Running since", "/desk/#{session.id}")
    end
  end

  describe "starting" do
    before { sign_in_with_lesson }

    def sign_in_with_lesson
      @lesson = kept_lesson(account)
      sign_in
    end

    it "keeps the options that were ticked" do
      post_form "/lessons/#{@lesson}/start", title: "", class_name: "7K", opens_itself: "1", speed_share: "0"
      started = Roost::Store::PastSessions.new.all_of(account).first
      expect(started.options.to_h).to eq(opens_itself: true, may_change: false, code_throughout: false, names_shown: false,
                                         results_itself: false, questions_mixed: false, parts_mixed: false, own_copy: false,
                                         speed_share: "0", entry: "free", extra: "", teams: "",
                                         team_count: "4", names_alone: false, released: false, rules_version: 2, one_touch: false,
                                         sounds: "off")
      expect([started.title, started.class_name]).to eq(["Birds on the move", "7K"])
    end

    it "does not start a lesson without slides" do
      empty = kept_lesson(account, Roost::Core::Lesson.new(title: "Empty"))
      post_form "/lessons/#{empty}/start", title: "x"
      expect(body).to include("This lesson has no slides for the class.")
    end
  end

  describe "results" do
    it "tells right, wrong, blank and not reached apart without colour" do
      ada, bo, cleo = %w[Ada Bo Cleo].map { |name| take_seat(session, name).first }
      command(session, "begin")
      command(session, "jump", slide: "s3")
      Roost::Store::Deliveries.new.note(session.id, "s3", [ada[:id], bo[:id], cleo[:id]])
      take_seat(session, "Dev")
      save(session, ada, "s3", { "options" => ["o1"] })
      save(session, bo, "s3", { "options" => ["o2"] })
      command(session, "end")
      sign_in
      get "/results/#{session.id}"
      cells = Nokogiri::HTML(body).css("tbody tr").to_h { |row| [row.at("th").text, row.at("td .badge")["aria-label"]] }
      expect(cells).to eq("Ada" => "right", "Bo" => "wrong", "Cleo" => "no answer", "Dev" => "not reached")
      expect(body).to include("33 %")
    end

    it "has an empty state, for no sessions and for a session without questions" do
      account
      sign_in
      expect(get("/results").body).to include("No sessions yet.")
      command(session, "end")
      expect(get("/results/#{session.id}").body).to include("No question was opened in this session.")
    end

    it "say which devices opened a student's seat, as the Desk does, and have a page of their own for print" do
      seat, = take_seat(session, "Ada")
      %w[d e].each do |letter|
        Roost::Operations::VisitSeat.new.call(seat, session, device: letter * 40, browser: "Mozilla/5.0 (X11; Linux) Chrome/130")
      end
      command(session, "begin")
      command(session, "jump", slide: "s3")
      sign_in
      expect(get("/desk/#{session.id}/seats/#{seat[:id]}").body).to include("opened on 2 devices")
      own = get("/results/#{session.id}/students/#{seat[:id]}").body
      expect([own.include?("Opened on a computer ("), own.include?("no marked question reached"), own.include?("0 of 0")])
        .to eq([true, true, false])
      %w[print questions].each { |tab| expect(get("/results/#{session.id}/#{tab}").status).to eq(200) }
    end

    it "say dates and times as clocks at the school show them, wherever the server stands" do
      session
      sign_in
      database[:school].update(time_zone: "Pacific/Auckland")
      database[:sessions].where(id: session.id).update(created_at: Sequel.lit("'2026-07-01 23:30Z'"))
      expect(get("/results").body.gsub(/\s+/, " ")).to include("2 Jul 2026, 11:30")
      expect(get("/results/#{session.id}").body.gsub(/\s+/, " ")).to include("Thursday 2 Jul 2026, 11:30")
      seat, = take_seat(session, "Ada")
      database[:seats].where(id: seat[:id]).update(left_at: Sequel.lit("'2026-07-01 23:45Z'"), stream_key: nil)
      command(session, "begin")
      away = Roost::Core::Session::Views.desk(moment(session))
      page = Roost::Web::Fragments.new
      expect(page.desk(away, 0.0)).to include("since 11:45")
      database[:school].update(time_zone: "Europe/London")
      expect(page.desk(away, 0.0)).to include("since 00:45")
    end
  end
end

RSpec.describe Roost::Web::Markdown do
  it "gives lists and emphasis, with headings below the slide's own" do
    html = described_class.html("# Big\n\n- one\n- **two**")
    expect(html).to include("<h3>Big</h3>", "<li>one</li>", "<strong>two</strong>")
  end

  it "opens links elsewhere without telling from where, and none that run" do
    expect(described_class.html("[a](https://x.example)")).to include('rel="noopener noreferrer"', 'target="_blank"')
    expect(described_class.html("[a](javascript:alert(1)) ![x](http://x.example/a.png) <iframe src=x></iframe>"))
      .not_to match(/javascript:|<img|<iframe/)
  end
end

RSpec.describe Roost::Web::Drawings do
  it "puts every bird on a wire, on a second one when there are many" do
    expect(described_class.wire(%i[here] * 30).scan('class="bird').length).to eq(30)
    many = described_class.wire(%i[answered] * 80)
    expect([many.scan('class="bird').length, many.scan('class="line"').length]).to eq([80, 2])
    crowd = described_class.wire(%i[answered] * 1000)
    expect([crowd.scan('class="bird').length, crowd.scan('class="line"').length]).to eq([1000, 3])
    expect(described_class.wire([])).to include('class="line"')
  end
end

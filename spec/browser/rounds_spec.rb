# frozen_string_literal: true

RSpec.describe "A game round" do
  let(:lesson) do
    questions = [["Why do swallows leave?", ["Insects are gone", "Too dark", "Too loud", "Too wet"]],
                 ["Who builds on the water?", %w[Grebe Owl Robin Swift]],
                 ["Which bird roosts in reeds?", %w[Starling Heron Cuckoo Kite]]]
    slides = questions.each_with_index.map do |(heading, texts), place|
      slide("q#{place}", heading: heading, prompt: game_choice(id: "p#{place}", texts: texts))
    end
    around = [slide("s1", heading: "Dusk over the marsh"), slide("s9")]
    Roost::Core::Lesson.new(title: "Birds on the move", slides: [around.first, *slides, around.last],
                            sections: [section("r", "game", %w[q0 q1 q2], title: "Who leaves, who stays")])
  end
  let(:session) { kept_session(teacher, lesson) }
  let(:screen) { window(:screen) }
  let(:desk) { sign_in_window(at: "/desk/#{session.id}") }

  def shot(name, session) = ENV.fetch("SHOTS", nil) && session.save_screenshot("#{ENV.fetch("SHOTS")}/#{name}.png")

  def seats(*names) = names.map { |name| take_seat(session, name).first }

  # Everybody but the phone answers: who has it right, and who has not.
  def answer(slide, seats, right, attempt: 1, **more)
    fields = ->(good) { { "options" => [good ? "o1" : "o2"] } }
    sleep 0.2 # devices are sent the question
    seats.each_with_index do |seat, place|
      Roost::Store::Deliveries.new.note(session.id, slide, [seat[:id]], attempt: attempt)
      said = save(session, seat, slide, { **fields.call(right[place]), **more.transform_keys(&:to_s) }, attempt: attempt)
      expect(said.state).to eq("final")
    end
  end

  it "has a beginning, questions, and an end that is told from the last to the first; and can be played again in another style" do
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    others = seats("Bo", "Cleo", "Dan")
    screen.visit "/screen/#{session.screen_key}"
    command(session, "begin")
    desk.find("main#main", text: "Dusk over the marsh")
    desk.click_button "Next slide →"
    expect(screen).to have_css(".round-title", text: "Who leaves, who stays")
    expect(screen).to have_css(".round-style", text: "Reading time is free")
    expect(ada).to have_css(".round-who", text: "3 questions")
    [[:screen, screen], [:desk, desk], [:phone, ada]].each { |name, window| shot("beginning-#{name}", window) }
    expect_accessible(desk)
    desk.choose "Steady"
    desk.click_button "Start the round →"
    expect(screen).to have_css("h1", text: "Why do swallows leave?")
    expect(screen).to have_no_css("sun-timer") # no clock
    ada.find("label", text: "Insects are gone").click
    ada.click_button "Hand in"
    expect(ada).to have_css(".answer-state", text: "✓ Handed in")
    answer("q0", others, [true, false, true])
    %w[close next].each { |name| command(session, name) }
    ada.find("label", text: "Grebe").click
    ada.click_button "Hand in"
    expect(ada).to have_css(".answer-state", text: "✓ Handed in")
    answer("q1", others, [false, false, true])
    command(session, "next")
    expect(ada).to have_css("h1", text: "Which bird roosts in reeds?")
    answer("q2", others, [true, false, false])
    command(session, "close")
    sleep 1.1
    command(session, "next")
    expect(screen).to have_css(".round-style", text: "from the last place to the first")
    expect(ada).to have_css(".round-who", text: "Look at the class screen")
    desk.click_button "Show the end"
    expect(screen).to have_css(".lane", count: 1, text: "Cleo")
    expect(ada).to have_no_css(".standing-rank")
    desk.click_button "Show the next place"
    expect(screen).to have_css(".lane", count: 4)
    expect(screen.all(".lane-rank").map(&:text)).to eq(%w[1 1 1 4])
    expect(ada).to have_css(".standing-rank", text: "1st of 4")
    desk.click_button "Show the next place"
    expect(screen).to have_css(".round-last", text: "Hardest question")
    [[:screen, screen], [:desk, desk], [:phone, ada]].each { |name, window| shot("ending-#{name}", window) }
    expect(ada).to have_css(".round-best", text: "2 right in a row")
    [desk, screen, ada].each { |window| expect_accessible(window) }
    desk.click_button "Play it again…"
    expect(screen).to have_css(".round-kind", text: "played for the 2nd time")
    desk.choose "Sure"
    desk.click_button "Play it again"
    expect(ada).to have_css(".how-sure", text: "How sure are you?")
    shot("sure-phone", ada)
    ada.find("label", text: "Insects are gone").click
    ada.find("label", text: "Very sure").click
    ada.click_button "Hand in"
    expect(ada).to have_css(".answer-state", text: "✓ Handed in")
    answer("q0", others, [false, true, true], attempt: 2, certainty: "3")
    command(session, "close")
    sleep 1.1
    command(session, "show", what: "standings")
    expect(screen.all(".lane").map { |lane| lane.text.split.values_at(0, 1) }).to eq([%w[1 Ada], %w[1 Cleo], %w[1 Dan], %w[4 Bo]])
    expect(screen.all(".lane-points").map(&:text)).to eq(%w[100 100 100 -200])
    expect(ada).to have_css(".round-notch", text: "Here last time: 100. Now: 100, as many as last time.")
    shot("notch-phone", ada)
    ada.find("summary", text: "Why these points?").click
    expect(ada).to have_css(".why-points li", text: "100 points ÷ 3 × 3, for being very sure with a mark of 1 = 100.")
    expect([desk, screen, ada].flat_map { |window| complaints(window) }).to eq([])
  end

  describe "on a small phone" do
    let(:lesson) do
      texts = ["Because the insects that they eat are gone by then", "Because the nights are getting too long for them",
               "Because the marsh is too loud in autumn for them", "Because the reeds are cut and the nests are wet"]
      asked = slide("q0", heading: "Why do swallows leave the marsh before the first frost?", pictures: [kept_picture],
                          prompt: game_choice(id: "p0", texts: texts))
      Roost::Core::Lesson.new(title: "Birds", slides: [asked], sections: [section("r", "game", %w[q0])])
    end
    let(:account) { teacher }
    let(:session) { kept_session(account, lesson, one_touch: true) }

    def kept_picture
      file = File.join(Roost::Settings::ROOT, "demo/pictures/dusk.svg")
      Roost::Operations::KeepPicture.new.call(account, File.open(file), "dusk.svg").value
    end

    it "has question and answers in view together, and one touch hands in and changes an answer" do
      ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
      ada.driver.browser.execute_cdp("Emulation.setDeviceMetricsOverride", width: 360, height: 640, deviceScaleFactor: 1,
mobile: true)
      command(session, "begin")
      command(session, "play", section: "r")
      expect(ada).to have_css(".option", count: 4)
      sleep 0.5
      shot("small-phone", ada)
      seen = ada.evaluate_script(<<~JS)
        (() => {
          const [heading, picture, ...options] = [".slide-heading", ".slide-picture", ".option", ".option:last-of-type"]
            .map((each) => document.querySelector(each).getBoundingClientRect());
          const bar = document.querySelector(".answer-bar").getBoundingClientRect();
          return [heading.top >= 0, picture.height > 60, options.at(-1).bottom <= bar.top + 1, bar.bottom <= innerHeight + 1,
                  document.documentElement.scrollHeight <= innerHeight + 1];
        })()
      JS
      expect(seen).to eq([true] * 5)
      ada.find(".slide-picture").click
      expect(ada).to have_css(".slide-picture.is-large")
      ada.find(".slide-picture").click
      expect(ada).to have_no_button("Hand in")
      ada.find("label", text: "too long").click
      expect(ada).to have_css(".answer-state", text: "✓ Handed in. You can still change it.")
      ada.find("label", text: "insects").click
      eventually { moment(session).given.values.map { |each| [each.final, each.value["options"]] } == [[true, ["o1"]]] }
    end
  end

  describe "by teams that answer as one" do
    let(:session) { kept_session(teacher, lesson, teams: "dealt", team_count: "2") }

    it "shows on every device of a team, and on no other, what one of them has set" do
      ada, bo = %w[Ada Bo].map { |name| seat_window(name, session, as: name, driver: :chromium_phone) }
      reed = Roost::Store::Teams.new.of(session.id).first
      moment(session).seats.each { |seat| Roost::Operations::MoveToTeam.new.call(session.account_id, session.id, seat.id, reed.id) }
      cleo = seat_window("Cleo", session, as: "Cleo")
      command(session, "begin")
      command(session, "play", section: "r", answering: "one", style: "steady")
      expect(bo).to have_css(".team-answer", text: "Nobody has set one yet.")
      ada.find("label", text: "Too dark").click
      ada.click_button "Hand in"
      expect(bo).to have_css(".team-answer", text: "Set by Ada")
      bo.find("label", text: "Insects are gone").click
      bo.click_button "Hand in"
      expect(ada).to have_css(".team-answer", text: "Set by Bo")
      expect(ada.find(".team-answer")).to have_text("Insects are gone")
      expect(cleo).to have_css(".team-answer", text: "Nobody has set one yet.")
      shot("as-one-phone", ada)
      command(session, "close")
      sleep 1.1
      command(session, "show", what: "standings")
      expect(ada).to have_css(".standing", text: "Your team: 1st of 2")
      shot("team-standing-phone", ada)
      screen.visit "/screen/#{session.screen_key}"
      expect(screen).to have_css(".lane", count: 2, text: /Reed|Sedge/)
      shot("team-standings-screen", screen)
      [ada, screen].each { |window| expect_accessible(window) }
    end
  end

  describe "at the board" do
    it "is entered by the teacher with one touch for each team" do
      desk.find("summary", text: "Teams at the board").click
      desk.fill_in "Names of the teams", with: "Herons\nSwifts"
      desk.click_button "Make these teams"
      expect(desk).to have_css(".perch", text: "Herons")
      command(session, "begin")
      command(session, "play", section: "r", style: "steady")
      desk.within(desk.find(".desk-board tr", text: "Herons")) { desk.click_button "A" }
      desk.within(desk.find(".desk-board tr", text: "Swifts")) { desk.click_button "B" }
      expect(desk).to have_css(".desk-board [aria-pressed=true]", count: 2)
      shot("board-desk", desk)
      expect_accessible(desk)
      command(session, "close")
      expect(desk).to have_css(".desk-standings .lane", text: /1\s*Herons\s*100/)
    end
  end
end

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
    desk.click_button "Start the round"
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
    expect([desk, screen, ada].flat_map { |window| complaints(window) }).to eq([])
  end
end

# frozen_string_literal: true

RSpec.describe "A quiz in a lesson, at each student's own speed" do
  # A slide, a quiz of three questions after a text, and a slide.
  def lesson(**rules)
    questions = [choice(id: "p1", keys: %w[o1]), choice(id: "p2", keys: %w[o2]), writing(id: "p3", size: "line")]
    slides = [slide("s0", heading: "The marsh at dusk"), slide("r1", heading: "Read this first"),
              *questions.each_with_index.map { |prompt, at| slide("q#{at + 1}", heading: "Question #{at + 1}", prompt: prompt) },
              slide("s9", heading: "Together again")]
    Roost::Core::Lesson.new(title: "Birds on the move", slides: slides,
                            sections: [section("quiz1", "quiz", %w[r1 q1 q2 q3], title: "Marsh quiz", **rules)])
  end

  def begun(**rules)
    kept_session(teacher, lesson(**rules)).tap { |session| command(session, "begin") }
  end

  def pick(phone, option) = phone.find(".option", text: option).click

  it "is opened, gone through, looked back on and handed in, while the Desk sees who has got how far" do
    session = begun
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    take_seat(session, "Bo")
    desk = sign_in_window(at: "/desk/#{session.id}")
    screen = window(:screen)
    screen.visit "/screen/#{session.screen_key}"
    desk.click_button "Next slide →"
    [desk.find(".mini-screen:not(.is-next)"), screen].each { |each| expect(each).to have_text("Marsh quiz") }
    expect(screen).to have_text("0 of 2 are done")
    expect(ada).to have_css("h1", text: "Read this first")
    ada.click_button "Next →"
    expect(ada).to have_css("h1:focus", text: "Question 1")
    expect(desk).to have_css(".quiz-grid tr", text: /Bo.*not begun/m)
    expect(desk.find(".quiz-grid tr", text: "Ada")).to have_css("td.is-at", count: 1)
    pick(ada, "Grey heron")
    ada.click_button "Next →"
    expect(desk).to have_css(".quiz-grid td.is-right", count: 1)
    pick(ada, "Grey heron")
    ada.click_button "Next →"
    expect(desk).to have_css(".quiz-grid td.is-wrong", count: 1)
    expect_accessible(ada)
    ada.click_button "Check answers"
    expect(ada).to have_text("1 question has no answer yet")
    ada.click_button "Question 2"
    expect(ada).to have_css(".option :checked + .letter + .option-text", text: "Grey heron")
    pick(ada, "Swallow")
    2.times { turn(ada, /Next|Check answers/) }
    expect_accessible(ada)
    ada.accept_confirm { ada.click_button "Hand in" }
    expect(ada).to have_css("h1", text: "Handed in")
    expect(ada).to have_text("2 of 3 questions")
    expect(desk).to have_css(".quiz-grid tr", text: /Ada.*handed in/m)
    expect(screen).to have_text("1 of 2 are done")
    expect_accessible(desk)
    desk.click_button "Close the quiz"
    expect(ada).to have_text("How it went")
    expect(ada.all(".told .outcome").map(&:text)).to eq(["✓ Right", "✓ Right", "– No answer"])
    expect(desk.dismiss_confirm { desk.click_button "Open it again" }).to include("Students have been told how it went.")
    desk.click_button "Go through the questions →"
    expect(screen).to have_css("h1", text: "Question 1")
    desk.click_button "Results up"
    expect(screen).to have_css(".bar-row", text: /Grey heron.*1/m)
    # A slide that was on its way ahead when the quiz was handed in is there no more.
    said = [ada, desk, screen].flat_map { |each| complaints(each) }
    expect(said).to eq([])
  end

  it "tells at once how one did where its rule says so, and gives one student more time in words" do
    session = begun(feedback: "explained", limit: 400)
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    desk = sign_in_window(at: "/desk/#{session.id}")
    command(session, "next")
    expect(ada).to have_css("time-left", text: "About 7 minutes left")
    ada.click_button "Next →"
    pick(ada, "Swallow")
    ada.execute_script("document.body.style.minHeight = '3000px'; scrollTo(0, 900)")
    ada.click_button "Check my answer"
    expect(ada).to have_css(".outcome", text: "✗ Not this time")
    expect(ada).to have_css("#seat-news", text: "Not this time", visible: :all)
    expect(ada.evaluate_script("scrollY")).to eq(0)
    expect(ada).to have_field("options", disabled: true, visible: :all, count: 4)
    desk.find(".grid-name", text: "Ada").click
    expect(desk).to have_css(".seat-given", text: /✗.*Question 1.*Swallow/m)
    desk.click_button "+ 10 min"
    expect(ada).to have_css("time-left", text: "About 17 minutes left")
    ada.click_button "Hide"
    expect(ada).to have_no_text("minutes left")
    expect(ada).to have_css(".outcome", text: "✗ Not this time")
    expect([ada, desk].flat_map { |each| complaints(each) }).to eq([])
  end

  it "loses nothing when the line is away: slides that were fetched go on, what is written waits, and is in" do
    session = begun
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    command(session, "next")
    ada.click_button "Next →"
    expect(ada).to have_css("h1", text: "Question 1")
    eventually(15) { expect(on_device(ada)).to include(%r{/slides/2\z}, %r{/slides/3\z}) }
    offline(ada, true)
    pick(ada, "Grey heron")
    ada.click_button "Next →"
    expect(ada).to have_css("h1", text: "Question 2", wait: 15)
    expect(ada).to have_css(".sitting-lost", text: "You can continue: what you write is on this device")
    pick(ada, "Swallow")
    expect(ada).to have_css(".answer-state", text: "On this device, sending…")
    ada.evaluate_async_script("document.querySelector('seat-sitting').refresh().then(arguments[0])")
    expect(ada.find(".sitting-moves")).to have_css(".sitting-lost", text: "You can continue: what you write is on this device")
    offline(ada, false)
    expect(ada).to have_no_css(".sitting-lost")
    expect(ada).to have_css("h1", text: "Question 2")
    expect(database[:sittings].where(session_id: session.id).select_map(:place)).to eq([3])
    eventually { expect(given(session)).to eq("q1" => %w[o1], "q2" => %w[o2]) }
    expect(complaints(ada)).to eq([])
  end

  it "has the pictures of the next slides when the line goes, and says so once" do
    account = teacher
    photo = Roost::Operations::KeepPicture.new.call(account, StringIO.new(Photographs.jpeg(1)), "photo.jpg").value
    plain = lesson
    slides = plain.slides.map { |each| each.id == "q1" ? each.with(pictures: [photo]) : each }
    session = kept_session(account, Roost::Core::Lesson.new(title: plain.title, slides: slides, sections: plain.sections))
    %w[begin next].each { |name| command(session, name) }
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    expect(ada).to have_css("#seat-news", text: /pictures/i, visible: :all, wait: 30)
    offline(ada, true)
    ada.click_button "Next →"
    expect(ada).to have_css("h1", text: "Question 1", wait: 15)
    eventually { expect(ada.evaluate_script("document.querySelector('main img')?.naturalWidth > 0")).to be(true) }
  end

  it "takes a line that says nothing for none, and shows what was asked for last" do
    _session, ada = at_first_slide
    eventually(15) { expect(on_device(ada)).to include(%r{/slides/2\z}, %r{/slides/3\z}) }
    ada.execute_script(<<~JS)
      const element = document.querySelector("seat-sitting");
      element.show("GET");
      element.go("POST", "/place?to=2");
    JS
    expect(ada).to have_css("h1", text: "Question 1")
    silent(ada)
    ada.click_button "Next →"
    expect(ada).to have_css("h1", text: "Question 2", wait: 8)
    expect(ada).to have_css(".sitting-lost")
  end

  it "says nothing of a request that a step took the place of, and loses no step for one that comes after" do
    _session, ada = at_first_slide
    eventually(15) { expect(on_device(ada)).to include(%r{/slides/2\z}) }
    ada.execute_script(<<~JS)
      const element = document.querySelector("seat-sitting"), fetched = window.fetch;
      window.said = [];
      window.asked = [];
      window.fetch = (address, how = {}) => new Promise((came, failed) => {
        if (!/slides|here/.test(address)) window.asked.push(how.method);
        how.signal?.addEventListener("abort", () => failed(how.signal.reason));
        setTimeout(() => fetched(address, how).then(came, failed), 500);
      });
      new MutationObserver(() => window.said.push(element.textContent, document.querySelector("#seat-news").textContent))
        .observe(document.body, { subtree: true, childList: true, characterData: true });
      element.show("GET");
      setTimeout(() => element.go("POST", "/place?to=2"), 100);
      setTimeout(() => element.dispatchEvent(new Event("time-over")), 300);
    JS
    eventually { expect(ada.evaluate_script("window.asked")).to eq(%w[GET POST GET]) }
    expect(ada).to have_css("h1", text: "Question 1")
    expect(ada.evaluate_script("window.said").join).not_to include("no line")
    expect(ada).to have_no_css(".sitting-lost")
  end

  it "keeps the slide where a request is refused, and says why" do
    _session, ada = at_first_slide
    ada.click_button "Next →"
    expect(ada).to have_css("h1", text: "Question 1")
    token = ada.current_url.split("/").last
    Roost::Web::Sitting.pace.turn?(Roost::Store::Seats.new.by_token(token)[:id], 50)
    ada.click_button "Next →"
    expect(ada).to have_css(".sitting-lost", text: "That was too fast. Wait a moment, then try again.")
    expect(ada).to have_css("h1", text: "Question 1")
    resize(ada, 390, 420)
    expect(ada.evaluate_script(<<~JS)).to eq([true, true])
      [0, 1e6].map((y) => {
        scrollTo(0, y);
        const place = (what) => document.querySelector(what).getBoundingClientRect();
        const [note, next] = [place(".sitting-lost"), place(".sitting-moves > button")];
        return note.top >= 0 && note.bottom <= next.top && next.bottom <= innerHeight;
      })
    JS
    eventually(10) do
      ada.click_button "Try again" if ada.has_button?("Try again", wait: 0)
      expect(ada).to have_no_css(".sitting-lost", wait: 1)
    end
  end

  # @return [Array(Store::Sessions::Row, Capybara::Session)] a quiz the class has come to, and a phone in it
  def at_first_slide
    session = begun
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    command(session, "next")
    expect(ada).to have_css("h1", text: "Read this first")
    [session, ada]
  end

  # A line over which nothing comes, though it seems to be there: what is asked for waits until it is given up.
  def silent(phone)
    phone.execute_script(<<~JS)
      window.fetch = (_address, { signal } = {}) =>
        new Promise((_came, failed) => signal?.addEventListener("abort", () => failed(signal.reason)));
    JS
  end

  # Addresses of what is kept of this sitting for when the line is away; others' may lie there, too.
  def on_device(phone)
    token = URI(phone.current_url).path.split("/").last
    keys = "caches.open('roost.sitting').then((store) => store.keys()).then((all) => done(all.map((each) => each.url)))"
    phone.evaluate_async_script("const done = arguments[0]; #{keys}").select { |address| address.include?(token) }
  end

  def given(session)
    Roost::Store::Answers.new.of(session.id).to_h { |_, each| [each.slide_id, each.value["options"]] }
  end

  def eventually(seconds = 8)
    ending = Time.now + seconds
    begin
      yield
    rescue RSpec::Expectations::ExpectationNotMetError
      raise if Time.now > ending

      sleep 0.1
      retry
    end
  end

  it "closes over who is at work: what stands on the device is in, and two windows are one sitting" do
    session = begun
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    command(session, "next")
    ada.click_button "Next →"
    second = window(:second, :chromium_phone)
    second.visit ada.current_url
    expect(second).to have_css("h1", text: "Question 1")
    pick(second, "Grey heron")
    expect(second).to have_css(".answer-state", text: "✓ Saved.")
    command(session, "close")
    [ada, second].each { |each| expect(each).to have_text("You answered 1 of 3 questions") }
    expect(ada.all(".told .outcome").map(&:text).first).to eq("✓ Right")
    late = window(:late, :chromium_phone)
    late.visit "/seat/#{take_seat(session, "Bo").last}"
    expect(late).to have_css("h1", text: "The quiz is over")
  end
end

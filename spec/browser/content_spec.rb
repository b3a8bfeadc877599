# frozen_string_literal: true

RSpec.describe "What is on slides, in the browser" do
  let!(:account) { teacher }
  let(:media) { File.join(Roost::Settings::ROOT, "demo/media") }

  def lesson = Roost::Store::Lessons.new.of(account).first.lesson

  def open_builder(page)
    page.visit "/lessons"
    page.click_link "Edit"
    page.find(".builder")
    page
  end

  # Everything of it is there, and the browser has read how long it is.
  def playable?(page, css) = page.evaluate_script("document.querySelector(#{css.to_json}).readyState") >= 1

  it "records spoken instructions in the page, and students can play them" do
    kept_lesson(account)
    page = open_builder(sign_in_window(:recorder, :chromium_recording))
    page.click_button "● Record spoken instructions"
    page.find(".recorder-state", text: "0:02")
    page.click_button "■ Stop recording"
    eventually { lesson.slides.first.spoken }
    expect(page).to have_css("audio[aria-label='Spoken instructions']")
    eventually { playable?(page, ".seat-frame audio") }
    expect(page).to have_css(".thumb", text: "with sound", visible: :all)
    page.first(:button, "Take it off").click
    eventually { lesson.slides.first.spoken.nil? }
  end

  it "takes in sound, a video with captions and the part to play, and plays both on the seat" do
    nil
    kept_lesson(account)
    page = open_builder(sign_in_window)
    page.attach_file "Sound", "#{media}/chirps.wav"
    expect(page).to have_css("audio[aria-label='Sound']")
    page.attach_file "Video", "#{media}/flock.webm"
    page.find_field("from").set("0:01")
    page.find_field("to").set("0:04")
    eventually { lesson.slides.first.video&.to == 4 }
    page.attach_file "Captions", "#{media}/flock.vtt"
    eventually { lesson.slides.first.video.captions }
    expect_accessible(page)
    session = Roost::Operations::StartSession.new.call(account, database[:lessons].get(:id), { "opens_itself" => "1" }).value
    student = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    expect(student).to have_css(".headphones", text: "headphones")
    command(session, "begin")
    expect(student.find(".video")["src"]).to end_with("#t=1,4")
    eventually { playable?(student, ".video") && playable?(student, ".sound audio") }
    expect(student.evaluate_script("document.querySelector('.video').textTracks.length")).to eq(1)
    expect_accessible(student)
  end

  it "looks in the page whether a video can be played, before it is sent, and says what a drawing lost" do
    kept_lesson(account)
    page = open_builder(sign_in_window)
    Dir.mktmpdir do |folder|
      film = File.join(folder, "flight.mp4")
      File.binwrite(film, "\x00\x00\x00\x18ftypmp42\x00\x00\x00\x00mp42isom#{"x" * 5000}")
      page.attach_file "Video", film
      expect(page).to have_css(".refusal", text: "“flight.mp4” can't be played in this browser")
      wing = File.join(folder, "wing.svg")
      File.write(wing, %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 60"><script/><rect width="5" height="9"/></svg>))
      page.attach_file "Add pictures", wing
      expect(page).to have_css(".note", text: "“wing.svg” is kept without what can't be shown here: scripts.")
    end
    expect(lesson.slides.first.video).to be_nil
    eventually { lesson.slides.first.pictures.length == 1 }
  end

  # As deep and as large as a formula may be.
  def worst_formula
    inside = "x"
    9.times { inside = "\\sqrt{\\frac{#{inside}}{y}}" }
    inside += "+x" while Roost::Core::Formula.settable?("#{inside}+x")
    inside
  end

  it "sets the largest formula that may be, thirty times at the Desk, one a frame and only near what is seen" do
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: [slide("w", prompt: writing(id: "pw", size: "equation"))])
    session = kept_session(account, lesson)
    %w[begin open].each { |name| command(session, name) }
    30.times { |number| save(session, take_seat(session, "Heron #{number}").first, "w", { "text" => [worst_formula] }) }
    desk = sign_in_window
    watch_frames(desk)
    desk.visit "/desk/#{session.id}"
    expect(desk).to have_css(".entry:first-child tex-formula .katex-html")
    desk.execute_script("document.querySelector('.entry:last-child').scrollIntoView()")
    expect(desk).to have_css(".entry:last-child tex-formula .katex-html")
    expect(desk).to have_css("tex-formula:not(:has(.katex-html))", minimum: 30, visible: :all)
    frames = desk.evaluate_script("window.framesOfFormulas")
    expect(frames.length).to be > 3
    expect(frames.uniq).to eq(frames)
  ensure
    desk.driver.browser.execute_cdp("Page.removeScriptToEvaluateOnNewDocument", identifier: @watching)
  end

  # Notes in which frame each formula was set.
  def watch_frames(desk)
    @watching = desk.driver.browser.execute_cdp("Page.addScriptToEvaluateOnNewDocument", source: <<~JS)["identifier"]
      let frame = 0;
      const count = () => { frame += 1; requestAnimationFrame(count); };
      requestAnimationFrame(count);
      window.framesOfFormulas = [];
      new MutationObserver((changes) => {
        for (const { target, addedNodes } of changes)
          if (target.localName === "tex-formula" && [...addedNodes].some((node) => node.className === "katex"))
            window.framesOfFormulas.push(frame);
      }).observe(document, { childList: true, subtree: true });
    JS
  end

  it "sets formulas, and says what is wrong with one that can't be set" do
    kept_lesson(account)
    page = open_builder(sign_in_window)
    page.find("summary", text: "Maths marks").click
    page.fill_in "Text", with: ""
    page.find("button.mark", text: "½").click
    expect(page).to have_css(".seat-frame tex-formula .katex", text: "1")
    page.fill_in "Text", with: "Half: $\\frac{1$"
    expect(page).to have_css("tex-formula.is-wrong", text: "\\frac{1")
    expect(page).to have_css("tex-formula.is-wrong small", text: "Unexpected end of input")
    page.fill_in "Text", with: "Half: $\\frac{1}{2}$"
    expect(page).to have_no_css("tex-formula.is-wrong")
    expect(complaints(page)).to be_empty
  end

  it "lets students step through a series of pictures by button and key" do
    pictures = %w[heron duck owl].map { |name| Roost::Operations::TakeDrawing.new.call(account, name).value }
    series = Roost::Core::Lesson.new(title: "Three", slides: [slide("s1", pictures: pictures)])
    session = kept_session(account, series)
    student = seat_window(:ada, session, as: "Ada")
    command(session, "begin")
    expect(student).to have_css(".series-count", text: "1 of 3")
    student.click_button "Next ›"
    expect(student).to have_css(".series-count", text: "2 of 3")
    student.find(".series-strip").send_keys(:right)
    expect(student).to have_css(".series-count", text: "3 of 3")
    expect(student).to have_button("Next ›", disabled: true)
    expect_accessible(student)
  end

  it "never gives the class a slide for teachers only, and shows it at the Desk" do
    slides = [slide("s1", heading: "First"), slide("s2", heading: "Answers", for_class: false), slide("s3", heading: "Last")]
    hidden = Roost::Core::Lesson.new(title: "Two", slides: slides)
    session = kept_session(account, hidden)
    student = seat_window(:ada, session, as: "Ada")
    desk = sign_in_window
    desk.visit "/desk/#{session.id}"
    desk.click_button "Begin the lesson"
    expect(desk).to have_css(".desk-notes", text: "For you: Answers")
    desk.click_button "Next slide →"
    expect(student).to have_css("h1", text: "Last")
    expect(desk).to have_css(".desk-label", text: "slide 2 of 2")
    expect(desk).to have_button("Next slide →", disabled: true)
  end

  it "can be tried in the preview without recording anything" do
    id = kept_lesson(account)
    page = sign_in_window
    page.visit "/lessons/#{id}/preview?slide=s3"
    # Clicked by script: ChromeDriver misses in frames that are scaled.
    page.within_frame(page.find(".is-phone iframe")) do
      page.find("label.option", match: :first)
      ["input[name=options]", "[data-hand-in]"].each { |css| page.execute_script("document.querySelector('#{css}').click()") }
      expect(page).to have_css(".answer-state", text: "✓ Handed in.")
    end
    expect(database[:answers].count).to eq(0)
    page.click_link "When results are shown"
    page.within_frame(page.find(".is-screen iframe")) { expect(page).to have_css(".right-word") }
    page.within_frame(page.find(".is-laptop iframe")) { expect(page).to have_css(".outcome") }
    Roost::Operations::EditSlide.new.call(account, id, "s3", rev: 1) { |slide| slide.edited({ "heading" => "Changed elsewhere" }) }
    page.within_frame(page.find(".is-phone iframe")) { expect(page).to have_css("h1", text: "Changed elsewhere") }
  end
end

RSpec.describe "Slides in order, and two teachers at one lesson" do
  let!(:account) { teacher }
  let!(:colleague) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }
  let!(:id) { kept_lesson(account) }

  def lesson = Roost::Store::Lessons.new.find(account, id).lesson

  it "moves several at once by keyboard, into a section and out of it, and undoes" do
    page = sign_in_window
    page.visit "/lessons/#{id}"
    [1, 2].each { |number| page.check("Choose slide #{number}") }
    expect(page).to have_css("#chosen-words", text: "2 chosen slides")
    page.find_button("Move down").send_keys(:enter)
    eventually { lesson.section_of("s1") && lesson.section_of("s2") }
    page.find_button("Move down").send_keys(:enter)
    eventually { lesson.slides.map(&:id) == %w[s3 s1 s2 s4 s5] }
    expect(page).to have_css(".slide-row.in-section", count: 3)
    expect(page).to have_checked_field("Choose slide 2")
    2.times { page.click_button "Undo" }
    eventually { lesson.slides.map(&:id) == %w[s1 s2 s3 s4 s5] && lesson.section_of("s1").nil? }
  end

  it "drags a slide under the name of a section, and it belongs to it" do
    page = sign_in_window
    page.visit "/lessons/#{id}"
    second = page.all(".thumb")[1]
    third = page.all(".thumb")[2]
    page.driver.browser.action.click_and_hold(second.native).move_by(0, 10).move_to(third.native, 0, 24).move_by(0, 4)
        .move_to(third.native, 0, -30).move_by(0, -6).release.perform
    eventually { lesson.section_of("s2") }
    expect(lesson.slides.map(&:id).first(3)).to eq(%w[s1 s2 s3])
  end

  it "shows who is at work, merges different slides silently, and never overwrites the same one" do
    Roost::Store::Sharing.new.share(id, colleague, may_edit: true)
    page = sign_in_window
    page.visit "/lessons/#{id}?slide=s1"
    other = sign_in_window(:rowe, email: "rowe@heronsgate.example")
    other.visit "/lessons/#{id}?slide=s2"
    expect(page).to have_css(".others", text: "Mr Rowe is editing, on slide 2", wait: 12)
    other.fill_in "Heading", with: "By Mr Rowe"
    page.fill_in "Heading", with: "By Ms Falk"
    eventually { lesson.slides.map(&:heading).first(2) == ["By Ms Falk", "By Mr Rowe"] }
    expect(page).to have_css(".thumb-name", text: "By Mr Rowe", wait: 12)
    expect(page).to have_no_css(".refusal")
    other.visit "/lessons/#{id}?slide=s1"
    other.fill_in "Text", with: "Hers"
    eventually { lesson.slides.first.text == "Hers" }
    expect(page).to have_css("#news .note", text: "Mr Rowe has just changed this slide.", wait: 12)
    page.fill_in "Text", with: "Mine"
    expect(page).to have_css(".refusal", text: "Mr Rowe changed the same meanwhile.")
    expect(page).to have_css("#saved .saved.is-not", text: "Not all is saved")
    expect([lesson.slides.first.text, page.find_field("Text").value]).to eq(%w[Hers Mine])
    page.fill_in "Notes for you only", with: "Bring the scope"
    eventually { lesson.slides.first.notes == "Bring the scope" }
    page.fill_in "Notes for you only", with: "Bring the scope, and tea"
    eventually { lesson.slides.first.notes == "Bring the scope, and tea" }
    sleep 6 # what is asked for every few seconds takes the sentence away no more
    expect(page).to have_css(".refusal", text: "Mr Rowe changed the same meanwhile.")
    expect(lesson.slides.first.text).to eq("Hers")
    page.click_button "Keep mine"
    eventually { lesson.slides.first.text == "Mine" }
    expect(page).to have_no_css(".refusal")
    expect(lesson.slides.first.notes).to eq("Bring the scope, and tea")
  end

  it "keeps every page of preparing usable by everybody, at 1024 wide too" do
    Roost::Setup::Demo.new.call
    page = sign_in_window(:small, :chromium_small)
    Roost::Store::Sharing.new.open_to_all(id, true)
    ["/lessons", "/lessons/#{id}", "/lessons/#{id}/about", "/lessons/#{id}/add", "/lessons/#{id}/starters", "/lessons/#{id}/look",
     "/lessons/#{id}/history", "/lessons/#{id}/preview", "/bank", "/standards"].each do |path|
      page.visit path
      expect_accessible(page)
      wide = page.evaluate_script("document.documentElement.scrollWidth")
      expect([path, wide]).to eq([path, 1024])
    end
  end
end

# frozen_string_literal: true

RSpec.describe "An assignment, on students' devices and the teacher's" do
  let(:account) { teacher }
  let(:kestrel) { Roost::Operations::KeepClass.new.create(account, { "name" => "Year 7 Kestrel" }).value }
  let(:lesson) do
    slides = [slide("s0", heading: "Read this first", text: "The marsh at dusk."),
              slide("q1", heading: "Question 1", prompt: choice(keys: %w[o1])),
              slide("q2", heading: "Question 2", prompt: writing(size: "line"))]
    Roost::Core::Lesson.new(title: "Birds on the move", slides: slides)
  end

  def fill(*names)
    rows = names.each_with_index.map { |name, place| [place + 1, { name: name }] }
    Roost::Operations::FillClass.new.fill(account, kestrel, Roost::Core::ClassList.read(rows).value)
    Roost::Operations::StudentPasses.new.of_class(account, kestrel).map(&:last)
  end

  def hours(from_now) = (Time.now.utc + (from_now * 3600)).strftime("%Y-%m-%dT%H:%M")

  it "is given in two touches, done on two devices, followed, closed, and then told how it went" do
    pass, = fill("Ada Lindqvist", "Bo Marsh")
    id = kept_lesson(account, lesson)
    desk = sign_in_window(at: "/lessons/#{id}")
    desk.click_link "Assign"
    expect(desk).to have_select("Class", selected: "Year 7 Kestrel")
    expect_accessible(desk)
    desk.execute_script("document.querySelector('#opens_at').value = '#{hours(-3)}'")
    desk.find("form.start button.is-primary").click
    expect(desk).to have_text("Assigned. Students with a pass find it on their page.")
    expect(desk).to have_css("tbody tr", text: /Ada Lindqvist.*not opened/m)
    expect_accessible(desk)

    phone = window(:phone, :chromium_phone)
    phone.visit "/pass/#{pass}"
    expect(phone).to have_css("h2", text: "To do")
    expect_accessible(phone)
    phone.click_button "Begin"
    expect(phone).to have_css("h1", text: "Birds on the move")
    expect_accessible(phone)
    phone.click_button "Begin"
    phone.click_button "Next →"
    phone.find(".option", text: "Grey heron").click
    phone.click_button "Next →"
    phone.fill_in "text", with: "By the st"
    expect(phone).to have_css(".answer-state", text: "✓ Saved.")

    laptop = window(:laptop)
    laptop.visit "/pass/#{pass}"
    expect(laptop).to have_text("2 of 2 answered")
    laptop.click_button "Continue"
    expect(laptop).to have_field("text", with: "By the st")
    laptop.fill_in "text", with: "By the stars"
    laptop.click_button "Check answers"
    expect(laptop).to have_text("You have answered everything.")
    laptop.click_button "Hand in"
    expect(laptop).to have_text("You see how it went here after")
    phone.refresh
    expect(phone).to have_text("You continued on another device")

    desk.refresh
    expect(desk).to have_css("tbody tr", text: /Ada Lindqvist.*handed in.*2 of 2/m)
    desk.find("summary", text: "More").click
    desk.accept_confirm { desk.click_button "Close now" }
    expect(desk).to have_text("Closed for all. What was written counts.")
    laptop.refresh
    expect(laptop).to have_css(".told .outcome", text: "✓ Right")
    laptop.visit "/pass/#{pass}"
    expect(laptop).to have_css("section", text: /Done.*1 of 1 right/m)
    expect([desk, laptop].flat_map { |each| complaints(each) }).to eq([])
  end

  it "takes a sketch and a picture on a card, and has them again for who comes back, also in the own copy" do
    kinds = Roost::Core::Kinds
    slides = [slide("s1", heading: "Draw the reeds", prompt: kinds::Sketch::Prompt.new(id: "p1", settings: {})),
              slide("s2", heading: "Photos", prompt: kinds::Posts::Prompt.new(id: "p2", settings: { "approve" => false }))]
    given = { "opens_at" => hours(-3), "closes_at" => hours(3), "entry" => "free", "going_back" => "1", "feedback" => "right" }
    id = kept_lesson(account, Roost::Core::Lesson.new(title: "At the sluice", slides: slides))
    row = Roost::Operations::AssignLesson.new.call(account, id, given).value
    ada = seat_window(:ada, row, as: "Ada")
    ada.click_button "Begin"
    ada.driver.browser.action.move_to(ada.find(".sheet").native, -90, 0).click_and_hold.move_by(40, 30).release.perform
    expect(ada).to have_css(".answer-state", text: "✓ Saved.")
    ada.click_button "Next →"
    picture = File.join(Roost::Settings::ROOT, "docs/screenshots/desk-answers.png")
    ada.attach_file("Picture or camera", picture, make_visible: true)
    expect(ada).to have_css(".post-state", text: "Picture ready.")
    ada.click_button "Add this card"
    expect(ada).to have_css(".others-cards .card-picture")
    ada.refresh
    expect(ada).to have_css(".own-cards .card-picture")
    expect(ada).to have_text("2 of 2 answered")
    ada.click_button "← Back"
    expect(ada).to have_css(".sheet path, .sheet polyline", visible: :all)
    expect_accessible(ada)
    2.times { turn(ada, /Next|Check answers/) }
    ada.click_button "Hand in"
    ada.click_link "Your copy"
    expect(ada).to have_css(".copy-page svg, .copy-page img", minimum: 2)
    expect(ada.evaluate_script("[...document.images].every((each) => each.complete && each.naturalWidth > 0)")).to be(true)
    expect_accessible(ada)
    expect(complaints(ada)).to eq([])
  end

  it "is come to by its code, with the clock of the device an hour wrong and set back in the midst" do
    given = { "opens_at" => hours(-3), "closes_at" => hours(3), "limit" => "30", "entry" => "free", "going_back" => "1" }
    row = Roost::Operations::AssignLesson.new.call(account, kept_lesson(account, lesson), given).value
    phone = window(:phone, :chromium_phone)
    phone.visit "/join/#{row.code}"
    phone.execute_script("const real = Date.now; window.shift = 3600000; Date.now = () => real() + window.shift")
    phone.fill_in "name", with: "Cleo"
    phone.click_button "Join"
    expect(phone).to have_text("Once begun, you have 30 minutes.")
    phone.execute_script("const real = Date.now; window.shift = 3600000; Date.now = () => real() + window.shift")
    phone.click_button "Begin"
    expect(phone).to have_css("time-left", text: "About 30 minutes left")
    phone.execute_script("window.shift = -7200000")
    phone.click_button "Next →"
    phone.find(".option", text: "Grey heron").click
    expect(phone).to have_css(".answer-state", text: "✓ Saved.")
    expect(phone).to have_css("time-left", text: "About 30 minutes left")
    expect(Roost::Store::Answers.new.of(row.id).map { |_, each| [each.late, each.value] }).to eq([[false, picked("o1")]])
  end
end

# frozen_string_literal: true

RSpec.describe "A board, for students at work alone" do
  let(:lesson) do
    board = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: { "most" => 2 })
    slides = [slide("s0", heading: "The marsh at dusk"), slide("b1", heading: "What did you see?", prompt: board),
              slide("q1", heading: "Which bird?", prompt: choice(id: "p2", keys: %w[o1]))]
    Roost::Core::Lesson.new(title: "Field notes", slides: slides, sections: [section("quiz1", "quiz", %w[b1 q1])])
  end

  def add_card(phone, text)
    phone.fill_in "New card", with: text
    phone.click_button "Add this card"
  end

  def hours(from_now) = (Time.now.utc + (from_now * 3600)).strftime("%Y-%m-%dT%H:%M")

  it "shows the others' cards once one has given one's own and the teacher has let theirs through" do
    account = teacher
    given = { "opens_at" => hours(-3), "closes_at" => hours(3), "entry" => "free", "going_back" => "1" }
    row = Roost::Operations::AssignLesson.new.call(account, kept_lesson(account, lesson), given).value
    ada, bo = %w[Ada Bo].map do |name|
      seat_window(name.downcase.to_sym, row, as: name, driver: :chromium_phone).tap do |phone|
        phone.click_button "Begin"
        phone.click_button "Next →"
        expect(phone).to have_text("Add a card of your own. Then you see everyone's.")
      end
    end
    add_card(ada, "A heron by the sluice")
    expect(ada).to have_text("1 waiting for your teacher")
    desk = sign_in_window(at: "/assignments")
    expect(desk).to have_css("tr", text: /Field notes.*1 card waits for you/m)
    desk.click_link "Field notes"
    desk.click_link "What did you see?"
    expect(desk).to have_text("A heron by the sluice")
    expect_accessible(desk)
    desk.click_button "Show", exact: true
    expect(desk).to have_css("h3", text: "On the board · 1")
    expect(bo).to have_no_text("A heron by the sluice")
    add_card(bo, "Two coots")
    expect(bo).to have_css(".others-cards .post", text: "A heron by the sluice")
    bo.find(".others-cards [data-like]").click
    expect(bo).to have_css(".others-cards [aria-pressed=true] .card-likes", text: "1")
    expect_accessible(bo)
    bo.click_button "Next →"
    bo.click_button "← Back"
    expect(bo).to have_css(".others-cards [aria-pressed=true] .card-likes", text: "1")
    bo.click_button "Next →"
    bo.click_button "Check answers"
    bo.accept_confirm { bo.click_button "Hand in" }
    expect(bo).to have_css("h2", text: "On the board: What did you see?")
    expect(bo).to have_css(".others-cards:disabled .post", text: "A heron by the sluice")
    expect([ada, bo, desk].flat_map { |each| complaints(each) }).to eq([])
  end

  it "is let through at the Desk during a quiz, by touching the question, and waits again when it is written anew" do
    session = kept_session(teacher, lesson)
    command(session, "begin")
    ada = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    desk = sign_in_window(at: "/desk/#{session.id}")
    desk.click_button "Next slide →"
    add_card(ada, "A heron by the sluice")
    expect(desk).to have_text("1 card for a board waits for you")
    desk.find(".grid-question", text: "1").click
    within_dialog = desk.find("#desk-question")
    expect(within_dialog).to have_text("A heron by the sluice")
    within_dialog.click_button "Show", exact: true
    expect(within_dialog).to have_css("h3", text: "On the board · 1")
    expect(desk).to have_no_css(".grid-waits")
    ada.click_button "Remove this card"
    add_card(ada, "Something else")
    expect(within_dialog).to have_css("h3", text: "Waiting for you · 1")
    expect(within_dialog).to have_no_text("A heron by the sluice")
    expect_accessible(desk)
    expect([ada, desk].flat_map { |each| complaints(each) }).to eq([])
  end
end

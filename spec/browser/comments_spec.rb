# frozen_string_literal: true

RSpec.describe "A comment on an answer" do
  it "is written in the results, changed, and read by the student on their page and in their copy" do
    account = teacher
    asked = { "q1" => writing(id: "p1"), "q2" => choice(keys: %w[o1]) }
    slides = asked.map { |id, prompt| slide(id, heading: "How do they know? #{id}", prompt: prompt) }
    lesson = Roost::Core::Lesson.new(title: "Birds", slides: slides)
    session = kept_session(account, lesson, own_copy: true)
    seat, = take_seat(session, "Ada")
    person = Roost::Store::Students.new.create(account, [{ name: "Ada Lindqvist", shown_name: "Ada" }]).first
    Roost::Store::Seats.new.belong(seat[:id], student_id: person, team_id: nil)
    Roost::Store::Students.new.give_pass(person, pass = Roost::Core::StudentPass.make(SecureRandom))
    command(session, "begin")
    save(session, seat, "q1", { "text" => ["By the stars"] })
    command(session, "end")
    desk = sign_in_window(at: "/results/#{session.id}/students/#{seat[:id]}")
    desk.find("summary", text: "Comment", match: :first).click
    desk.fill_in "To the student", with: "Good thought.\nHow could you find out?"
    desk.find(".comment-form[open]").click_button "Keep"
    expect(desk).to have_css(".answer-comment", text: "Good thought.")
    expect_accessible(desk)
    phone = window(:phone, :chromium_phone)
    phone.visit "/pass/#{pass}"
    expect(phone).to have_css(".own-comments", text: /On “How do they know\? q1”.*How could you find out\?/m)
    expect_accessible(phone)
    phone.click_link "Your copy"
    expect(phone).to have_css(".copy-answer", text: /Your teacher.*Good thought\./m)
    expect([desk, phone].flat_map { |each| complaints(each) }).to eq([])
  end
end

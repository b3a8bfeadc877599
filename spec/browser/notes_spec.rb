# frozen_string_literal: true

RSpec.describe "Notes in the margin of a seat" do
  let(:lesson) do
    headings = ["The marsh at dusk", "Who flies south?", "The end"]
    slides = headings.each_with_index.map { |heading, at| slide("s#{at + 1}", heading: heading) }
    Roost::Core::Lesson.new(title: "Field notes", slides: slides)
  end
  let(:session) { kept_session(teacher, lesson).tap { |row| command(row, "begin") } }

  def notes = database[:notes].as_hash(:slide_id, :text)

  it "are kept slide by slide, also without a line, and stand in the student's own copy" do
    seat, token = take_seat(session, "Ada")
    phone = window(:ada, :chromium_phone).tap { |each| each.visit "/seat/#{token}" }
    expect(phone).to have_no_field("Your notes")
    phone.click_button "Notes"
    expect_accessible(phone)
    phone.find("#own-note").set("Herons stay\nall winter")
    expect(phone).to have_css("[data-note-state]", text: "✓ Saved. Only you see them.")
    command(session, "next")
    expect(phone).to have_css("h1", text: "Who flies south?")
    expect(phone.find("#own-note").value).to eq("Herons stay\nall winter") # still being written
    phone.find("h1").click
    expect(phone).to have_css("[data-on]", text: "on “Who flies south?”")
    expect(phone.find("#own-note").value).to eq("")
    expect(phone.find("[data-note-state]").text).to eq("Only you see them.") # nothing is saved here yet
    offline(phone, true)
    phone.find("#own-note").set("Swallows")
    expect(phone).to have_css("[data-note-state]", text: "On this device, sending…")
    offline(phone, false)
    expect(phone).to have_css("[data-note-state]", text: "✓ Saved.", wait: 10)
    expect(notes).to eq({ "s1" => "Herons stay\nall winter", "s2" => "Swallows" })
    phone.refresh
    expect(phone).to have_field("own-note", with: "Swallows")
    phone.find("#own-note").click
    command(session, "end")
    expect(phone).to have_css("h1", text: "Lesson finished")
    phone.click_link "Your copy" # stays where it is while it is pressed, though the notes go
    expect(phone).to have_css("h1", text: "Field notes")
    expect(phone.all(".copy-note").map { |each| each.find("p").text }).to eq(["Herons stay\nall winter", "Swallows"])
    expect(Roost::Store::Seats.new.by_token(token)[:id]).to eq(seat[:id])
    on_paper(phone) do
      expect(phone).to have_no_button("Print")
      expect(phone).to have_css(".copy-note", count: 2)
    end
  end

  it "go with the class where the margin is open and nothing was written yet" do
    phone = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    phone.click_button "Notes"
    expect(phone.evaluate_script("document.activeElement.id")).to eq("own-note")
    command(session, "next")
    expect(phone).to have_css("[data-on]", text: "on “Who flies south?”")
    phone.send_keys("Swallows")
    expect(phone).to have_css("[data-note-state]", text: "✓ Saved.")
    expect(notes).to eq({ "s2" => "Swallows" })
  end

  it "begin in a new attempt with what was noted in the one before, also where that is not sent yet" do
    asked = kept_session(teacher(email: "moss@heronsgate.example"),
                         Roost::Core::Lesson.new(title: "Wires", slides: [slide("s1", heading: "Who stays?", prompt: choice)]))
    command(asked, "begin")
    phone = seat_window(:bo, asked, as: "Bo", driver: :chromium_phone)
    phone.click_button "Notes"
    phone.find("#own-note").set("Herons")
    expect(phone).to have_css("[data-note-state]", text: "✓ Saved.")
    phone.find("h1").click
    command(asked, "again")
    expect(phone).to have_css(".seat-slide[data-attempt='2']")
    # A press of a moment ago holds the margin where it is.
    eventually { phone.evaluate_script("document.querySelector('own-notes').question") == "s1/2" }
    expect(phone.find("#own-note").value).to eq("Herons")
    phone.find("#own-note").set("Herons and owls")
    expect(phone).to have_css("[data-note-state]", text: "✓ Saved.")
    phone.refresh
    expect(phone).to have_field("own-note", with: "Herons and owls")
    rows = database[:notes].order(:attempt).select_map(%i[attempt text])
    expect([rows, complaints(phone)]).to eq([[[1, "Herons"], [2, "Herons and owls"]], []])
  end

  def on_paper(phone)
    phone.driver.browser.execute_cdp("Emulation.setEmulatedMedia", media: "print")
    yield
  ensure
    phone.driver.browser.execute_cdp("Emulation.setEmulatedMedia", media: "")
  end

  it "go with the last slide" do
    phone = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    phone.click_button "Notes"
    phone.find("h1").click
    command(session, "end")
    expect(phone).to have_no_field("own-note")
  end

  it "of two windows both stand" do
    _seat, token = take_seat(session, "Ada")
    one, other = %i[one other].map do |name|
      window(name).tap do |each|
        each.visit "/seat/#{token}"
        each.click_button "Notes" if each.has_no_field?("own-note", wait: 1)
      end
    end
    one.find("#own-note").set("Herons stay")
    expect(one).to have_css("[data-note-state]", text: "✓ Saved.")
    other.find("#own-note").set("Swallows go")
    expect(other).to have_field("own-note", with: "Herons stay\n\nSwallows go")
    expect(other).to have_css("[data-note-state]", text: "✓ Saved.")
    expect(notes).to eq({ "s1" => "Herons stay\n\nSwallows go" })
  end
end

# frozen_string_literal: true

RSpec.describe "A seat that is heard, or worked by keyboard" do
  let(:session) { kept_session(teacher) }
  let(:seat) { seat_window(:ada, session, as: "Ada") }

  before do
    session
    seat
    seat.execute_script(<<~JS)
      window.said = [];
      new MutationObserver(() => {
        const words = document.querySelector("#seat-news").textContent.trim();
        if (words) window.said.push(words);
      }).observe(document.querySelector("#seat-news"), { childList: true, characterData: true, subtree: true });
    JS
  end

  def said = seat.evaluate_script("window.said.splice(0)")

  def focus = seat.evaluate_script("document.activeElement.textContent.trim() || document.activeElement.name")

  def expect_focus(text) = expect(seat).to have_css(":focus", text: text)

  it "says what is new once, goes to each new heading, and is called by where it is" do
    expect(seat.title).to eq("Waiting for Birds on the move · Amber Roost")
    command(session, "begin")
    expect_focus("Dusk over the marsh")
    expect(said).to eq(["The lesson has begun."])
    expect(seat.title).to eq("Slide 1 of 5: Dusk over the marsh · Amber Roost")
    command(session, "jump", slide: "s3")
    expect_focus("Why do swallows leave?")
    seat.find("label", text: "Swallow").click
    seat.click_button "Hand in"
    expect(seat).to have_css(".answer-state", text: "✓ Handed in")
    command(session, "close")
    expect(seat).to have_css(".answer-state", text: "Answers are closed")
    command(session, "show", what: "results")
    expect(seat).to have_css("#seat-news", text: "What the class answered is shown.", visible: :all)
    command(session, "show", what: "key")
    expect(seat).to have_css(".outcome", text: "Not this time")
    command(session, "show", what: "standings")
    expect(seat).to have_css(".standing")
    sleep 0.3
    expect(said).to eq(["Answers are open.", "✓ Handed in. You can still change it.", "Answers are closed.",
                        "What the class answered is shown.", "Not right this time.", "Place 1 of 1, with 0 points."])
    command(session, "end")
    expect_focus("Lesson finished")
    expect(seat.title).to eq("Birds on the move has ended · Amber Roost")
  end

  it "says once that ten seconds are left" do
    command(session, "begin")
    command(session, "jump", slide: "s3")
    expect_focus("Why do swallows leave?")
    database[:openings].where(session_id: session.id).update(deadline: Sequel.lit("clock_timestamp() + interval '13 seconds'"))
    seat.refresh
    expect(seat).to have_css("#seat-news", text: "10 seconds left", visible: :all)
  end

  it "does not speak for every pause in typing" do
    command(session, "begin")
    command(session, "jump", slide: "s4")
    seat.find("input[name=text]").send_keys("By the")
    expect(seat).to have_css(".answer-state", text: "✓ Saved")
    seat.find("input[name=text]").send_keys(" stars")
    sleep 1
    expect(said.grep(/Saved|sending/i)).to be_empty
    expect(focus).to eq("text")
  end

  it "comes back from eyes up to where it was, and from a question that closes to the heading" do
    command(session, "begin")
    command(session, "jump", slide: "s4")
    seat.find("input[name=text]").send_keys("By the")
    command(session, "eyes_up")
    expect_focus("Eyes up")
    command(session, "eyes_down")
    expect(seat).to have_css("input[name=text]:focus")
    seat.send_keys(" stars")
    expect(seat).to have_field("text", with: "By the stars")
    command(session, "close")
    expect_focus("How do they know the way?")
  end

  it "hands in by keyboard and never drops focus to the page" do
    command(session, "begin")
    command(session, "jump", slide: "s3")
    expect_focus("Why do swallows leave?")
    seat.send_keys(:tab, :space, :tab, :enter)
    expect(seat).to have_css(".answer-state", text: "✓ Handed in")
    expect(seat.evaluate_script("document.activeElement === document.body")).to be(false)
    command(session, "close")
    expect(seat).to have_css(".answer-state", text: "Answers are closed")
    sleep 0.3
    expect(seat.evaluate_script("document.activeElement === document.body")).to be(false)
  end
end

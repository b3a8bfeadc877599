# frozen_string_literal: true

RSpec.describe "A seat that loses nothing" do
  let(:session) { kept_session(teacher) }
  let(:seat) { seat_window(:ada, session, as: "Ada") }
  let(:field) { seat.find("input[name=text]") }

  before do
    session
    seat
    command(session, "begin")
    command(session, "jump", slide: "s4")
  end

  def stored(slide_id = "s4") = moment(session).record.answers.fetch([slide_id, 1], {}).to_h.values.first

  # Waits for something to be true of what is kept.
  it "answers a question that is asked again, from the start; both attempts are kept" do
    field.send_keys("By the stars")
    seat.click_button "Hand in"
    eventually { stored&.final }
    command(session, "again", after: "1")
    command(session, "again", after: "1") # a second click
    expect(seat).to have_field("text", with: "")
    seat.find("input[name=text]").send_keys("By the river")
    eventually { moment(session).answer("s4", stored.seat_id)&.value == { "text" => "By the river" } }
    expect(moment(session).attempt).to eq(2)
    expect(stored.value).to eq({ "text" => "By the stars" })
    seat.refresh
    expect(seat).to have_field("text", with: "By the river")
  end

  it "shows the name that the teacher gives it, and says so when she takes it out" do
    seat_id = moment(session).names.key("Ada")
    field.send_keys("By the stars")
    eventually { stored&.value == { "text" => "By the stars" } }
    Roost::Operations::RenameSeat.new.call(session.account_id, session.id, seat_id, "Adele")
    expect(seat).to have_css(".seat-name", text: /\AAdele\z/)
    expect(field.value).to eq("By the stars")
    Roost::Operations::RemoveSeat.new.call(session.account_id, session.id, seat_id)
    expect(seat).to have_css("h1", text: "You are no longer in this lesson")
    expect(seat).to have_text("Your teacher has removed you from this session. To come back, join again")
  end

  it "hears of both also where the line was away meanwhile" do
    seat_id = moment(session).names.key("Ada")
    offline(seat, true)
    Roost::Operations::RenameSeat.new.call(session.account_id, session.id, seat_id, "Adele")
    offline(seat, false)
    expect(seat).to have_css(".seat-name", text: /\AAdele\z/, wait: 10)
    offline(seat, true)
    Roost::Operations::RemoveSeat.new.call(session.account_id, session.id, seat_id)
    offline(seat, false)
    expect(seat).to have_css("h1", text: "You are no longer in this lesson", wait: 10)
  end

  it "says that an address is no seat's" do
    seat.visit "/seat/#{"x" * 22}"
    expect(seat).to have_css("h1", text: "This seat is not known")
  end

  it "brings a half-written sentence from a lost line to the Desk after the teacher has moved on" do
    field.send_keys("They fol")
    eventually { stored&.value == { "text" => "They fol" } }
    offline(seat, true)
    field.send_keys("low the river")
    expect(seat).to have_css(".answer-state", text: "On this device, sending…")
    command(session, "next")
    put_back(session, 60, :closed_at, slide: "s4")
    offline(seat, false)
    expect(seat).to have_css("h1", text: "Sketch a wing", wait: 10)
    eventually { stored.value == { "text" => "They follow the river" } }
    expect([stored.late, stored.final]).to eq([true, false])
    desk = sign_in_window
    desk.visit "/desk/#{session.id}"
    desk.find(".sheet-row", text: "How do they know").click
    expect(desk).to have_css(".entry", text: /Ada.*unfinished.*late.*They follow the river/m)
  end

  it "keeps what was typed through a reload, even before it was acknowledged" do
    offline(seat, true)
    field.send_keys("They follow the river")
    expect(seat).to have_css(".answer-state", text: "On this device, sending…")
    offline(seat, false)
    seat.refresh
    expect(seat).to have_field("text", with: "They follow the river")
    eventually { stored&.value == { "text" => "They follow the river" } }
    expect(database[:answers].count).to eq(1)
  end

  it "keeps what is acknowledged while the page is being left: the next one may have been made before it was in" do
    on_device = -> { seat.evaluate_script("Object.keys(localStorage).filter((key) => key.startsWith('roost.outbox.')).length") }
    field.click
    seat.execute_script("dispatchEvent(new Event('beforeunload'))")
    field.send_keys("Stars")
    eventually { stored&.value == { "text" => "Stars" } }
    expect(on_device.call).to eq(1)
    eventually { on_device.call.zero? } # since it stayed
    expect(seat).to have_css(".answer-state", text: "✓ Saved.")
    expect(database[:answers].count).to eq(1)
  end

  it "keeps the last letters typed before the page was put away" do
    seat.execute_script(<<~JS, field)
      arguments[0].value = "Stars";
      arguments[0].dispatchEvent(new Event("input", { bubbles: true }));
      location.href = "about:blank";
    JS
    seat.visit "/"
    expect(seat).to have_no_text("Ada")
    seat.fill_in "The name you joined with", with: "Bo"
    seat.click_button "Back to my seat"
    expect(seat).to have_css(".help.is-wrong", text: "This seat has another name.")
    seat.fill_in "The name you joined with", with: "ada"
    seat.click_button "Back to my seat"
    expect(seat).to have_field("text", with: "Stars")
    eventually { stored&.value == { "text" => "Stars" } }
  end

  it "makes one answer of a double tap" do
    field.send_keys("Stars")
    seat.find_button("Hand in").double_click
    eventually { stored&.final }
    sleep 0.5
    expect(database[:answers].count).to eq(1)
    expect(stored.value).to eq({ "text" => "Stars" })
  end

  it "keeps a half-typed answer and its focus while the teacher does other things" do
    field.send_keys("They fol")
    command(session, "add_time", seconds: 15)
    expect(seat).to have_css(".timer-figure")
    seat.send_keys("low")
    expect(field.value).to eq("They follow")
  end

  it "hands in what was being written when answers close, and says so" do
    field.send_keys("They follow the")
    command(session, "close")
    expect(seat).to have_css(".answer-state", text: "Answers are closed. ✓ Your last answer counts.")
    eventually { stored&.value == { "text" => "They follow the" } && !stored.late }
    expect(seat).to have_css("fieldset:disabled")
  end

  it "rests with eyes up and gives everything back" do
    field.send_keys("Mid thought")
    command(session, "eyes_up")
    expect(seat).to have_css("h1", text: "Eyes up")
    command(session, "eyes_down")
    expect(seat).to have_css("input[name=text]")
    expect(field.value).to eq("Mid thought")
  end

  it "follows the teacher and shows an earlier answer again on going back" do
    field.send_keys("Stars")
    seat.click_button "Hand in"
    expect(seat).to have_css(".answer-state", text: "✓ Handed in")
    command(session, "next")
    expect(seat).to have_css(".sheet")
    command(session, "back")
    expect(seat.find_field("text", disabled: true).value).to eq("Stars")
    expect(seat).to have_css(".answer-state", text: "Answers are closed. ✓ Handed in.")
  end

  it "counts an answer given in time that the line held up, and says so at the Desk" do
    state = database[:sessions].where(id: session.id).get(:lesson).to_h
    state["slides"].find { |each| each["id"] == "s3" }["prompt"]["time_limit"] = 6
    database[:sessions].where(id: session.id).update(lesson: Sequel.pg_jsonb(state), lesson_version: 7)
    eventually { database[:seats].exclude(heard_at: nil).count == 1 }
    command(session, "jump", slide: "s3")
    seat.find("label", text: "Grey heron")
    offline(seat, true)
    seat.find("label", text: "Grey heron").click
    seat.click_button "Hand in"
    eventually(20) { !moment(session).state.open? } # a second after the end; ten later nothing is excused any more
    offline(seat, false)
    eventually { stored("s3")&.by_line }
    expect([stored("s3").late, stored("s3").final]).to eq([false, true])
    expect(seat).to have_css(".answer-state", text: "Answers are closed. ✓ Handed in.")
    desk = sign_in_window.tap { |each| each.visit "/desk/#{session.id}" }
    expect(desk).to have_css(".entry", text: /Ada.*delayed by the connection/m)
  end

  it "asks which of two windows' texts is the answer, and loses neither" do
    other = window(:beside, :chromium_phone).tap { |each| each.visit seat.current_path }
    field.send_keys("By the stars")
    eventually { stored&.value == { "text" => "By the stars" } }
    other.find("input[name=text]").send_keys("By smell")
    expect(other).to have_css(".answer-state", text: "In another window you wrote something else")
    expect([stored.value, stored.conflicting_version]).to eq([{ "text" => "By the stars" }, { "text" => ["By smell"] }])
    other.click_button "Use this one"
    eventually { stored.value == { "text" => "By smell" } }
    field.send_keys(" and the sun")
    expect(seat).to have_css(".answer-state", text: "In another window you wrote something else")
    expect(stored.conflicting_version).to eq({ "text" => ["By the stars and the sun"] })
    seat.refresh
    expect(seat).to have_field("text", with: "By the stars and the sun")
    seat.click_button "Show the other"
    expect(seat).to have_field("text", with: "By smell")
    expect(seat).to have_no_button("Show the other")
  end

  it "works where the browser keeps nothing, and says what can be lost" do
    bare = window(:bare, :chromium_no_storage).tap { |each| each.visit seat.current_path }
    expect(bare.evaluate_script("(() => { try { return Boolean(localStorage); } catch { return false; } })()")).to be(false)
    expect(bare).to have_css(".no-storage", text: "This browser stores nothing on the device")
    bare.find("input[name=text]").send_keys("By the stars")
    eventually { stored&.value == { "text" => "By the stars" } }
    command(session, "next")
    expect(bare).to have_css("h1", text: "Sketch a wing")
    expect(complaints(bare)).to be_empty
  end

  it "works in more windows of one browser than the browser has connections for" do
    browser = window(:crowd)
    names = %w[Bo Cleo Dev Esme Finn Gus Hana]
    handles = names.map do |name|
      handle = browser.open_new_window(:window)
      browser.within_window(handle) { seat_window(:crowd, session, as: name).find("input[name=text]") }
      handle
    end
    command(session, "next")
    handles.each { |handle| browser.within_window(handle) { expect(browser).to have_css("h1", text: "Sketch a wing") } }
    command(session, "back")
    command(session, "open")
    handles.zip(names).each do |handle, name|
      browser.within_window(handle) do
        browser.find("input[name=text]:enabled").send_keys(name)
        browser.click_button "Hand in"
        expect(browser).to have_css(".answer-state", text: "✓ Handed in")
      end
    end
    expect(moment(session).given("s4").values.map { |answer| answer.value["text"] }).to match_array(names)
    expect(moment(session).seats.map(&:here)).to all(be(true))
    handles.each { |handle| browser.within_window(handle) { browser.current_window.close } }
  end

  it "is offered back on the front door of the device" do
    seat.visit "/"
    seat.fill_in "The name you joined with", with: "Ada"
    seat.click_button "Back to my seat"
    expect(seat).to have_css("h1", text: "How do they know the way?")
  end

  it "is away at the Desk once its window is gone" do
    desk = sign_in_window
    desk.visit "/desk/#{session.id}"
    expect(desk).to have_css(".perch.is-here", text: "Ada")
    seat.visit "about:blank"
    expect(desk).to have_css(".perch.is-away", text: "Ada")
  end

  it "is away while its window is in the background, and says so itself" do
    desk = sign_in_window
    desk.visit "/desk/#{session.id}"
    expect(desk).to have_css(".perch.is-here", text: "Ada")
    hide = lambda do |hidden|
      seat.execute_script(<<~JS)
        Object.defineProperty(document, "hidden", { get: () => #{hidden}, configurable: true });
        document.dispatchEvent(new Event("visibilitychange"));
      JS
    end
    hide.call(true)
    expect(desk).to have_css(".perch.is-away", text: "Ada")
    expect(desk.find(".perch", text: "Ada").find(".sr-only", visible: :all).text(:all)).to match(/away since \d\d:\d\d/)
    expect(desk).to have_text("0 of 1 here · 1 away")
    desk.find(".perch button", text: "Ada").click
    expect(desk.find("#desk-seat")).to have_text(/away since \d\d:\d\d/)
    desk.find("#desk-seat").click_button("Close")
    hide.call(false)
    expect(desk).to have_css(".perch.is-here", text: "Ada")
  end

  it "comes in under 100 kB over the wire, fonts included" do
    # A device that has never been here: no other example uses it.
    newcomer = seat_window(:bo, session, as: "Bo", driver: :chromium_newcomer)
    newcomer.find("input[name=text]")
    newcomer.evaluate_async_script("document.fonts.ready.then(arguments[0])")
    came = newcomer.evaluate_script(<<~JS)
      [...performance.getEntriesByType("navigation"), ...performance.getEntriesByType("resource")]
        .filter(entry => !entry.name.includes("/media/") && !entry.name.includes("/stream/"))
        .map(entry => [entry.name, entry.encodedBodySize])
    JS
    expect(came.sum(&:last)).to be_between(80_000, 100_000), came.inspect
  end
end

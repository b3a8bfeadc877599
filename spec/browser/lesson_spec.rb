# frozen_string_literal: true

RSpec.describe "A whole lesson in four windows" do
  let!(:account) { teacher }

  it "is started, run with two students and a class screen, and looked back on" do
    kept_lesson(account)
    desk = window(:teacher)
    desk.visit "/sign-in"
    desk.fill_in "Email", with: "falk@heronsgate.example"
    desk.fill_in "Password", with: "sallow marsh at dusk"
    desk.click_button "Sign in"
    desk.find("h1", text: "Today")
    expect_accessible(desk)
    desk.click_link "Start"
    desk.fill_in "or its name, for your records", with: "Year 7 Kestrel"
    desk.uncheck "In game rounds, a touch on a single choice hands it in", exact: false
    expect_accessible(desk)
    desk.click_button "Open the lobby"
    code = desk.find(".code.is-huge").text
    screen = window(:screen)
    screen.visit "/screen/#{database[:sessions].get(:screen_key)}"
    expect(screen).to have_css(".code.is-huge", text: code)

    ada = join_window(:ada, code.downcase, as: "Ada", driver: :chromium_phone)
    bo = join_window(:bo, code.delete(" "), as: "Bo")
    expect(desk).to have_css(".perch", count: 2)
    expect(screen).to have_css(".names li", text: "Bo")
    [desk, screen, ada].each { |each| expect_accessible(each) }

    desk.click_button "Begin the lesson"
    [screen, ada, bo].each { |each| expect(each).to have_css("h1", text: "Dusk over the marsh") }
    expect(ada).to have_css(".content strong", text: "closely")
    desk.click_button "Next slide →"

    # A poll: drafts are seen as they come; a late-comer lands on the slide.
    ada.find("label", text: "Yes").click
    expect(ada).to have_css(".answer-state", text: "✓ Saved. Hand in when you are ready.")
    expect(desk).to have_css(".desk-counts", text: "1 still writing")
    ada.click_button "Hand in"
    expect(ada).to have_css(".answer-state", text: "✓ Handed in. You can still change it.")
    expect(desk).to have_css(".perch.is-answered", text: "Ada")
    expect(desk).to have_css(".bar-row", text: /Yes\s*1\s*100 %/)
    cleo = join_window(:cleo, code, as: "Cleo")
    expect(cleo).to have_css("h1", text: "Have you seen one?")
    expect(screen).not_to have_css(".bars")
    expect(screen).not_to have_text("Ada")
    [desk, screen, ada].each { |each| expect_accessible(each) }
    desk.click_button "Results up"
    expect(screen).to have_css(".bar-row", text: "Yes")
    expect(bo).to have_css(".seat-result .bar-row", text: "Yes")
    desk.click_button "Results down"
    expect(screen).not_to have_css(".bars")

    # A game question: seconds in figures everywhere, more time, end now, key, standings.
    desk.click_button "Next slide →"
    desk.click_button "Start the round →"
    [screen, ada, bo, desk].each { |each| expect(each).to have_css(".timer-figure", text: /0:1\d|0:20/) }
    desk.click_button "+ 15 s"
    expect(ada).to have_css(".timer-figure", text: /0:[23]\d/)
    ada.find("label", text: "Grey heron").click
    ada.click_button "Hand in"
    bo.find("label", text: "Cuckoo").click
    expect(bo).to have_css(".answer-state", text: "✓ Saved")
    expect(desk).to have_css(".entry", count: 2)
    desk.click_button "Close answers"
    expect(bo).to have_css(".answer-state", text: "Answers are closed. ✓ Your last answer counts.")
    expect(cleo).to have_css(".answer-state", text: "Answers are closed. You gave no answer.")
    expect(bo).not_to have_css(".outcome")
    expect(desk).to have_css(".entry", text: "unfinished")
    desk.click_button "Results up"
    expect(screen).to have_css(".bar-row")
    expect(screen).not_to have_css(".bar-row.is-right")
    desk.click_button "Show right answer"
    expect(screen).to have_css(".bar-row.is-right", text: "Grey heron")
    expect(ada).to have_css(".outcome", text: /✓ Right · (?:100|9\d) points/)
    expect(bo).to have_css(".outcome", text: "✗ Not this time · 0 points")
    desk.click_button "Standings up"
    expect(screen).to have_css(".lane", text: /1\s*Ada\s*(?:100|9\d)/)
    expect(ada).to have_css(".standing", text: "1st of 3")
    expect(bo).to have_css(".standing", text: /(?:100|9\d) points behind the next/)
    [desk, screen, bo, ada].each { |each| expect_accessible(each) }

    # The end of the round, and past it.
    desk.click_button "Next slide →"
    desk.click_button "Show the end"
    expect(ada).to have_css(".round-kind")

    # Writing: as it grows at the Desk; one answer in the spotlight, without and with its name.
    desk.click_button "Next slide →"
    ada.find("input[name=text]").send_keys("They follow")
    expect(desk).to have_css(".entry", text: "They follow")
    bo.find("input[name=text]").send_keys("By the stars", :enter)
    expect(desk).to have_css(".entry", text: "By the stars")
    desk.within(desk.find(".entry", text: "Bo")) { desk.click_button "Spotlight" }
    expect(screen).to have_css(".spotlight", text: "By the stars")
    expect(screen).not_to have_text("Bo")
    desk.click_button "Spotlight down"
    desk.within(desk.find(".entry", text: "Bo")) { desk.click_button "with name" }
    expect(screen).to have_css(".spotlight figcaption", text: "Bo")
    expect(ada).to have_field("text", with: "They follow")

    # A sketch with a finger on a phone, kept as strokes.
    desk.click_button "Next slide →"
    sheet = ada.find(".sheet")
    ada.driver.browser.action.move_to(sheet.native, -80, -40).click_and_hold.move_by(60, 30).move_by(60, -30).release.perform
    ada.click_button "Highlighter"
    ada.driver.browser.action.move_to(sheet.native, -60, 40).click_and_hold.move_by(90, 0).release.perform
    expect(ada).to have_css(".answer-state", text: "✓ Saved")
    ada.click_button "Undo"
    ada.click_button "Hand in"
    expect(desk).to have_css(".entry .drawing img")
    expect(database[:answers].where(slide_id: "s5").get(:value)["strokes"].map { |stroke| stroke["tool"] }).to eq(["pen"])
    desk.click_button "Results up"
    # 800 wide as a tile, 200 as the drawing itself, which whoever comes while two tiles are made gets.
    expect(screen.find(".drawings .drawing img[src*='w=']") { |img| img.evaluate_script("this.naturalWidth").positive? }).to be
    [desk, screen, ada].each { |each| expect_accessible(each) }

    desk.find("#desk-menu summary").click
    desk.dismiss_confirm { desk.click_button "End the session" }
    expect(ada).to have_css("h1", text: "Sketch a wing")
    desk.accept_confirm { desk.click_button "End the session" }
    [ada, bo, cleo].each { |each| expect(each).to have_css("h1", text: "Lesson finished") }
    expect(desk).to have_no_link("To the lessons", class: "menu-item")
    desk.click_link "See the results"
    expect(desk).to have_css("dd", text: "2 of 3")
    expect_accessible(desk)
    desk.click_link "Questions"
    expect(desk).to have_css(".question", text: "33 % right, of all who reached it")
    expect_accessible(desk)
    desk.click_link "Students"
    desk.click_link "Bo"
    expect(desk).to have_css("tr", text: /How do they know the way\?.*By the stars/m)
    expect(desk).to have_css(".tag", text: "unfinished")
    expect_accessible(desk)
    [desk, screen, ada, bo, cleo].each { |each| expect(complaints(each)).to be_empty }
  end

  describe "at the Desk" do
    let(:session) { kept_session(account) }
    let(:desk) { sign_in_window.tap { |each| each.visit "/desk/#{session.id}" } }

    before do
      session
      command(session, "begin")
    end

    def place = moment(session).place

    it "moves one slide on a double click and on a key that is pressed twice quickly" do
      desk.find_button("Next slide →").double_click
      expect(desk).to have_css("[aria-current=step]", text: "Have you seen one?")
      sleep 0.4
      expect(place).to eq(1)
    end

    it "moves one slide when two Desks press next together" do
      other = sign_in_window(:other).tap { |each| each.visit "/desk/#{session.id}" }
      other.find_button("Next slide →")
      desk.find_button("Next slide →")
      [desk, other].map do |each|
        Thread.new do
          each.execute_script("document.querySelector('[data-key=ArrowRight]').click()")
        end
      end.each(&:join)
      expect(other).to have_css("[aria-current=step]", text: "Have you seen one?")
      sleep 0.3
      expect(place).to eq(1)
    end

    it "is driven by keys" do
      desk.find("body").send_keys(:right)
      expect(desk).to have_button("Close answers")
      desk.find("body").send_keys("o")
      expect(desk).to have_button("Open answers")
      desk.find("body").send_keys("r")
      expect(desk).to have_button("Results down")
      desk.find("body").send_keys("e")
      expect(desk).to have_button("Continue")
      desk.find("body").send_keys("?")
      expect(desk).to have_css("dialog[open]", text: "Next slide")
      desk.click_button "Close"
      desk.find("body").send_keys(:left)
      expect(desk).to have_css("[aria-current=step]", text: "Dusk over the marsh")
    end

    it "asks on the spot in two taps, and the seats answer" do
      seat = seat_window(:ada, session, as: "Ada")
      desk.find("body").send_keys("n")
      desk.click_button "Yes or no"
      expect(desk).to have_no_css("dialog[open]")
      seat.find("label", text: "Yes").click
      seat.click_button "Hand in"
      expect(desk).to have_css(".bar-row", text: /Yes\s*1/)
      expect(desk).to have_css("[aria-current=step]", text: "Asked now: yes or no")
    end

    it "says what it can't do, and jumps by the run sheet" do
      desk.find(".sheet-row", text: "Sketch a wing").click
      expect(desk).to have_css("[aria-current=step]", text: "Sketch a wing")
      expect(desk).to have_button("Next slide →", disabled: true)
      desk.execute_script("const next = document.querySelector('[data-key=ArrowRight]'); next.disabled = false; next.click()")
      expect(desk).to have_css("#desk-refusal", text: "That was the last slide.")
    end

    it "lets one person try it all with a practice class" do
      lobby = kept_session(account)
      desk.visit "/desk/#{lobby.id}"
      desk.fill_in "practice-count", with: "30"
      desk.click_button "Add practice students"
      expect(desk).to have_css(".perch", count: 30)
      desk.click_button "Begin the lesson"
      desk.click_button "Next slide →"
      expect(desk).to have_css(".perch.is-answered", minimum: 3, wait: 20)
    end
  end
end

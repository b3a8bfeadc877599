# frozen_string_literal: true

# Signed out elsewhere, or too long away, with a page of the program still open.
RSpec.describe "A page whose teacher is signed out" do
  let(:account) { teacher }
  let(:session) { kept_session(account).tap { |kept| command(kept, "begin") } }

  # Whether a browser would ask before the page is left; ChromeDriver leaves it without asking.
  def asks?(page)
    page.evaluate_script("(() => !dispatchEvent(new Event('beforeunload', { cancelable: true })))()")
  end

  def sign_out_everywhere = database[:account_active_session_keys].delete

  it "keeps what is written in the builder, says what to do, and saves it when one has signed in in another window" do
    lesson = kept_lesson(account)
    page = sign_in_window(at: "/lessons/#{lesson}")
    field = page.find_field("heading", match: :first)
    sign_out_everywhere
    field.send_keys(" of the marsh")
    expect(page.find("#refusals")).to have_text("You are signed out. Sign in in another window")
    expect(page).to have_css("#saved", text: "Not saved")
    expect(page).to have_no_field("Password")
    expect(asks?(page)).to be(true)
    sign_in_window
    field.send_keys(" at dusk")
    expect(page).to have_css("#saved", text: /\ASaved/)
    expect(asks?(page)).to be(false)
    expect(page.find("#refusals", visible: :all).text).to eq("")
    expect(Roost::Store::Lessons.new.find(account, lesson).lesson.slides.first.heading).to end_with(" of the marsh at dusk")
    expect(complaints(page).grep_v(/status of (?:401|403)/)).to eq([])
  end

  context "at the Desk" do
    let(:desk) { sign_in_window(at: "/desk/#{session.id}").tap { |window| window.find(".desk-bar") } }

    def expect_next
      desk.click_button "Next slide →"
      expect(desk).to have_css(".desk-label", text: "slide 2 of")
    end

    it "goes to the sign-in, which says why, and from there back to the Desk, where commands go on" do
      desk
      sign_out_everywhere
      desk.click_button "Next slide →"
      expect(desk.find("#desk-refusal")).to have_text("You are signed out.")
      expect(desk).to have_css("[role=status]", text: "Sign in to continue.", wait: 12)
      desk.fill_in "Email", with: "falk@heronsgate.example"
      desk.fill_in "Password", with: "sallow marsh at dusk"
      desk.click_button "Sign in"
      expect(desk).to have_css(".desk-bar")
      expect(desk.current_path).to eq("/desk/#{session.id}")
      expect_next
    end

    it "goes on giving commands with the sign-in of another window, whose token it didn't have" do
      desk
      sign_in_window
      expect_next
      expect(desk.find("#desk-refusal", visible: :all).text).to eq("")
    end
  end

  it "keeps what is drawn on the class screen, and sends it with the sign-in of another window" do
    command(session, "pen")
    board = sign_in_window(at: "/desk/#{session.id}/board")
    sheet = board.find("ink-sheet[data-pen=true]")
    sign_out_everywhere
    board.driver.browser.action.move_to(sheet.native, -40, 0).click_and_hold.move_by(80, 20).release.perform
    expect(board.find(".ink-tools [role=status]", visible: :all)).to have_text("You are signed out.")
    expect_accessible(board)
    expect(database[:ink].count).to eq(0)
    sign_in_window
    40.times { database[:ink].any? ? break : sleep(0.1) }
    expect(database[:ink].where(session_id: session.id).select_map(:stroke).uniq.length).to eq(1)
  end

  it "takes a picture in the builder with the sign-in of another window, and says what to do without one" do
    lesson = kept_lesson(account)
    page = sign_in_window(at: "/lessons/#{lesson}")
    picture = File.join(Roost::Settings::ROOT, "demo/pictures/map.svg")
    choose = -> { page.first("input[type=file][accept*=image]", visible: :all).set(picture) }
    sign_out_everywhere
    choose.call
    expect(page).to have_text("You are signed out. Sign in in another window")
    sign_in_window
    choose.call
    expect(page).to have_css(".seat-frame img, .seat-frame picture")
  end
end

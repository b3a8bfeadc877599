# frozen_string_literal: true

RSpec.describe "The keys of the Desk" do
  let(:session) { kept_session(teacher) }
  let(:desk) do
    session
    sign_in_window.tap { |page| page.visit "/desk/#{session.id}" }
  end

  before do
    session
    command(session, "begin")
    command(session, "jump", slide: "s2")
    desk.find("button", text: "Close answers")
  end

  def type(*keys) = desk.driver.browser.action.send_keys(*keys).perform

  def focused = desk.evaluate_script("document.activeElement.textContent.trim()")

  it "act only where focus is in no control, and arrows in the bar go along it" do
    desk.execute_script("document.querySelector('.desk-commands button:not(:disabled)').focus()")
    first = focused
    type("e")
    sleep 0.4
    expect(moment(session).state.eyes_up).to be(false)
    type(:arrow_right)
    expect(focused).not_to eq(first)
    type(:end)
    expect(focused).to eq("Results up")
    type(:home)
    expect(focused).to eq(first)
    expect(moment(session).state.slide_id).to eq("s2")
    desk.execute_script("document.activeElement.blur()")
    type("e")
    expect(desk).to have_button("Continue")
  end

  it "have the heading in focus once the button that began the lesson is gone, not the page" do
    row = kept_session(session.account_id)
    desk.visit "/desk/#{row.id}"
    desk.click_button "Begin the lesson"
    desk.find("button", text: "Next slide")
    eventually { desk.evaluate_script("document.activeElement.className") == "desk-title" }
  end

  it "go on working after a button was clicked with the mouse" do
    desk.click_button "Close answers"
    desk.find("button", text: "Open answers")
    type("o")
    expect(desk).to have_button("Close answers")
  end

  it "leave a menu open that was touched just as something came in, and closed one that was closed" do
    # As a swap does that comes before the browser has told of the touch.
    touch = <<~JS
      const menu = document.querySelector("#desk-menu");
      menu.querySelector("summary").click();
      menu.toggleAttribute("open", arguments[0]);
      document.dispatchEvent(new Event("htmx:after:swap"));
    JS
    desk.execute_script(touch, false)
    expect(desk).to have_css("#desk-menu[open]")
    sleep 0.2
    desk.execute_script(touch, false)
    sleep 0.2
    expect(desk).to have_no_css("#desk-menu[open]")
  end

  it "can be changed, are told apart, and can be switched off" do
    type("?")
    dialog = desk.find("#desk-keys")
    field = dialog.find_field("Key for: Eyes up")
    field.set("O")
    field.send_keys(:tab)
    expect(dialog).to have_css("[role=alert]", text: "O is another command's.")
    field.set("W")
    field.send_keys(:tab)
    dialog.click_button "Close"
    type("e")
    sleep 0.4
    expect(moment(session).state.eyes_up).to be(false)
    type("w")
    expect(desk).to have_button("Continue")
    desk.refresh
    type("?")
    expect(desk.find("#desk-keys").find_field("Key for: Eyes up").value).to eq("W")
    desk.uncheck "Letters press buttons, while focus is in none"
    desk.find("#desk-keys").click_button "Close"
    type("w")
    sleep 0.4
    expect(desk).to have_button("Continue")
    type(:arrow_right)
    expect(desk).to have_css(".sheet-row[aria-current]", text: "The beginning of the round")
  end
end

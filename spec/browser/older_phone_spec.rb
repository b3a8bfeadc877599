# frozen_string_literal: true

# A phone of 2020: Chromium without what it lacks.
RSpec.describe "An older phone" do
  let(:session) { kept_session(teacher) }

  # Gone from every page that is opened from now on. Object.hasOwn stays: ChromeDriver asks it.
  def without_what_is_younger(phone)
    phone.driver.browser.execute_cdp("Page.addScriptToEvaluateOnNewDocument", source: <<~JS)["identifier"]
      delete Array.prototype.at;
      delete Array.prototype.findLast;
      delete window.structuredClone;
      delete Crypto.prototype.randomUUID;
      delete HTMLFormElement.prototype.requestSubmit;
    JS
  end

  it "joins, hands in, changes and writes" do
    phone = window(:old, :chromium_phone)
    script = without_what_is_younger(phone)
    phone.visit "/join/#{session.code}"
    phone.fill_in "Your name", with: "Ada"
    phone.click_button "Join"
    expect(phone).to have_css(".seat-name", text: "Ada")
    expect(phone.evaluate_script("[].at === undefined")).to be(true)
    command(session, "begin")
    command(session, "jump", slide: "s3")
    phone.find("label", text: "Swallow").click
    phone.click_button "Hand in"
    expect(phone).to have_css(".answer-state", text: "✓ Handed in")
    command(session, "jump", slide: "s4")
    phone.find("input[name=text]").send_keys("By the stars")
    phone.click_button "Hand in"
    expect(phone).to have_css(".answer-state", text: "✓ Handed in")
    expect(moment(session).record.answers.values.flat_map { |set| set.to_h.values.map(&:value) })
      .to match_array([{ "options" => ["o2"] }, { "text" => "By the stars" }])
    expect(complaints(phone)).to eq([])
  ensure
    phone.driver.browser.execute_cdp("Page.removeScriptToEvaluateOnNewDocument", identifier: script)
  end
end

# frozen_string_literal: true

RSpec.describe "Correcting a key, in real windows" do
  let!(:account) { teacher }
  let(:session) { kept_session(account) }

  it "is done at the Desk while the class looks on, and afterwards in the results" do
    student = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    command(session, "begin")
    command(session, "jump", slide: "s3")
    student.find(".option", text: "Swallow").click
    student.click_button "Hand in"
    expect(student).to have_css(".answer-state", text: "✓ Handed in.")
    command(session, "close")
    %w[results key].each { |what| command(session, "show", what: what) }
    expect(student).to have_css(".outcome", text: "✗ Not this time")

    desk = sign_in_window
    desk.visit "/desk/#{session.id}"
    desk.click_button "Fix the answer key…"
    desk.within("#desk-key") do
      desk.uncheck "Grey heron"
      desk.check "Swallow"
      desk.fill_in "Points", with: "5000"
      desk.click_button "Fix the key"
      expect(desk).to have_text("Points can be 0 to 1000 points, or empty.")
      desk.fill_in "Points", with: "40"
      expect_accessible(desk)
      desk.click_button "Fix the key"
    end
    expect(student).to have_css(".outcome", text: "✓ Right · 40 points")
    expect(desk).to have_no_css("#desk-key[open]")
    expect(desk).to have_css(".bar-row.is-right", text: "Swallow")

    desk.click_button "Fix the answer key…"
    desk.click_button "Leave this question out"
    expect(desk).to have_css(".desk-answers .note", text: "Left out: this question counts for nobody.")
    expect(student).to have_css(".outcome", text: "This question doesn't count")

    command(session, "end")
    desk.visit "/results/#{session.id}/questions"
    desk.find("#question-s3").click_link "Fix the key or leave this question out"
    desk.click_button "Count it again"
    expect(desk).to have_css(".note", text: "That question counts again.")
    desk.find("#question-s3").click_link "Fix the key or leave this question out"
    desk.check "Cuckoo"
    desk.click_button "Fix the key"
    expect(desk).to have_css(".note", text: "Corrected, here and in the lesson.")
    expect(desk).to have_css("#question-s3 .bar-row.is-right", count: 2)
    expect(complaints(desk)).to be_empty
  end
end

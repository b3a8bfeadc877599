# frozen_string_literal: true

RSpec.describe "What a student gave, at the Desk" do
  let(:session) { kept_session(teacher) }
  let(:seats) { %w[Ada Bo Cleo].to_h { |name| [name, take_seat(session, name).first] } }

  def give(name, option, save_no: 1) = save(session, seats[name], "s3", { "options" => [option] }, save_no: save_no)

  it "stands on the tile; touching a bar lights those who gave it, while more come, and one goes into the spotlight" do
    seats
    command(session, "begin")
    command(session, "jump", slide: "s3")
    desk = sign_in_window(at: "/desk/#{session.id}")
    give("Ada", "o2")
    give("Bo", "o1")
    expect(desk).to have_css(".perch.is-answered", count: 2)
    expect(desk.find(".perch", text: "Ada").find(".perch-gave").text).to eq("B ✗")
    expect(desk.find(".perch", text: "Bo").find(".perch-gave").text).to eq("A ✓")
    desk.click_button "Who gave B"
    expect(desk).to have_css(".perch.is-lit", count: 1, text: "Ada")
    expect(desk.find("#desk-lit").text.split).to eq(%w[B: Ada])
    give("Cleo", "o2")
    expect(desk).to have_css(".perch.is-lit", count: 2)
    expect(desk.find("#desk-lit").text.split).to eq(%w[B: Ada Cleo])
    expect_accessible(desk)
    desk.find("#desk-lit").click_button("Cleo")
    %w[Cleo Swallow].each { |word| expect(desk.find("dialog[open]")).to have_text(word) }
    desk.click_button "Put this answer in the spotlight"
    expect(desk).to have_css(".mini-screen .spotlight")
    expect(moment(session).state.spotlights.map { |light| light["seat"] }).to eq([seats["Cleo"][:id]])
    desk.click_button "Who gave B"
    expect(desk).to have_no_css(".perch.is-lit")
    expect(desk).to have_css("#desk-lit", visible: :hidden)
    expect(complaints(desk)).to eq([])
  end

  it "is renamed and taken out from its tile, and the device is told so" do
    row = session
    _seat, token = take_seat(row, "Imp")
    phone = window(:phone, :chromium_phone)
    phone.visit "/seat/#{token}"
    desk = sign_in_window(at: "/desk/#{row.id}")
    desk.find(".perch button", text: "Imp").click
    desk.fill_in "Name", with: "Ivo"
    desk.click_button "Rename"
    expect(desk).to have_css(".perch", text: "Ivo")
    desk.find(".perch button", text: "Ivo").click
    desk.accept_confirm { desk.click_button "Remove from session" }
    expect(desk).to have_no_css(".perch")
    expect(phone).to have_text("You are no longer in this lesson")
  end
end

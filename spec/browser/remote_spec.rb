# frozen_string_literal: true

RSpec.describe "The Desk" do
  let(:session) do
    slides = (1..24).map { |place| slide("s#{place}", heading: "Slide #{place}") }
    kept_session(teacher, Roost::Core::Lesson.new(title: "Long", slides: slides))
  end

  before { command(session, "begin") }

  def sheet_shows?(desk, text)
    desk.evaluate_script(<<~JS, text)
      (() => {
        const row = [...document.querySelectorAll(".sheet-row")].find((each) => each.textContent.includes(arguments[0]));
        const [inner, outer] = [row, row.closest(".desk-sheet")].map((each) => each.getBoundingClientRect());
        return inner.top >= outer.top && inner.bottom <= outer.bottom;
      })()
    JS
  end

  it "has a run sheet that follows the slide" do
    desk = sign_in_window(at: "/desk/#{session.id}")
    expect(desk).to have_css(".sheet-row[aria-current]", text: "Slide 1")
    expect(sheet_shows?(desk, "Slide 20")).to be(false)
    command(session, "jump", slide: "s20")
    expect(desk).to have_css(".sheet-row[aria-current]", text: "Slide 20")
    expect(sheet_shows?(desk, "Slide 20")).to be(true)
  end

  it "is a remote on a phone: four views one touch apart, what is needed under the thumb, the rest in a drawer" do
    desk = sign_in_window(:remote, :chromium_phone, at: "/desk/#{session.id}")
    { "Students" => ".desk-wire", "Run sheet" => ".desk-sheet", "Class screen" => ".desk-class",
      "Answers" => ".desk-answers" }.each do |name, place|
      desk.click_button name
      expect(desk.all(".desk-wire, .desk-sheet, .desk-class, .desk-answers").length).to eq(1)
      expect(desk).to have_css(place)
      expect(desk.find(:button, name)["aria-pressed"]).to eq("true")
    end
    expect(desk.all(".desk-bar button").map(&:text)).to eq(["← Back", "Next slide →", "Eyes up", "More"])
    desk.click_button "Run sheet"
    desk.click_button "Next slide →"
    expect(desk).to have_css(".sheet-row[aria-current]", text: "Slide 2")
    desk.click_button "More"
    desk.click_button "Ask now"
    desk.find("dialog[open]").click_button("Close")
    expect(desk).to have_no_button("Ask now")
    expect(desk).to have_no_text("Keys")
    expect_accessible(desk)
    expect(complaints(desk)).to eq([])
  end

  it "gives a time to talk, which all see, and which is made longer and ended" do
    seat = seat_window(:ada, session, as: "Ada", driver: :chromium_phone)
    screen = window(:screen)
    screen.visit "/screen/#{session.screen_key}"
    desk = sign_in_window(at: "/desk/#{session.id}")
    desk.click_button "Talk time"
    desk.find(".lengths", text: "Talk with your neighbour").click_button("2 min")
    windows = [seat, screen, desk]
    windows.each { |each| expect(each).to have_css(".talk-time", text: /Talk with your neighbour\s+(2:00|1:5\d)/) }
    desk.click_button "+ 30 s"
    windows.each { |each| expect(each).to have_css(".talk-time", text: /2:[0-3]\d/) }
    desk.click_button "End talk time"
    windows.each { |each| expect([each.has_no_css?(".talk-time"), complaints(each)]).to eq([true, []]) }
  end

  it "says who talks with whom, on the class screen and on each device, and goes with the slide" do
    seats = %w[Ada Bo Cleo Dev].to_h { |name| [name, seat_window(name, session, as: name, driver: :chromium_phone)] }
    screen = window(:screen)
    screen.visit "/screen/#{session.screen_key}"
    desk = sign_in_window(at: "/desk/#{session.id}")
    expect(desk).to have_text("4 of 4 here")
    desk.click_button "Talk time"
    desk.click_button "In pairs"
    expect(screen).to have_css(".pairs li", count: 2)
    pairs = screen.all(".pairs li").map { |row| row.text.scan(/[A-Z][a-z]+/) }
    expect(pairs.flatten).to match_array(seats.keys)
    seats.each do |name, seat|
      number = pairs.index { |pair| pair.include?(name) }
      expect(seat.find(".seat-pair")).to have_text("number #{number + 1}, with #{(pairs[number] - [name]).first}")
    end
    desk.click_button "Next slide →"
    expect(screen).to have_no_css(".pairs")
    expect(seats["Ada"]).to have_no_css(".seat-pair")
  end

  it "says how a question went the last time it was asked, practice students left out" do
    past = kept_session(teacher(email: "moss@heronsgate.example"))
    seats = %w[Ada Bo Cleo].map { |name| take_seat(past, name).first }
    simulated = { id: Roost::Store::Seats.new.create(past.id, "Simulated", practice: true).first, session_id: past.id }
    command(past, "begin")
    command(past, "jump", slide: "s3")
    [*seats, simulated].zip(%w[o1 o2 o2 o1]) { |seat, option| save(past, seat, "s3", { "options" => [option] }) }
    command(past, "end")
    again = Roost::Operations::StartSession.new.call(past.account_id, past.lesson_id, {}).value
    expect(Roost::Store::Sessions.new.last_time(again.id).transform_values { |share| share.round(2) }).to eq("s3" => 0.33)
    command(again, "begin")
    command(again, "jump", slide: "round")
    desk = sign_in_window(:moss, email: "moss@heronsgate.example", at: "/desk/#{again.id}")
    expect(desk.find(".desk-next")).to have_text("last time 33 % right")
    expect(desk.find(".sheet-row", text: "Why do swallows")).to have_text("last time 33 % right")
  end
end

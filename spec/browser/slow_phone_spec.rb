# frozen_string_literal: true

# A phone on a line of 400 kbit/s whose answers take 400 ms.
RSpec.describe "A slow phone" do
  let(:account) { teacher }
  let(:photographs) do
    Array.new(6) do |seed|
      Roost::Operations::KeepPicture.new.call(account, StringIO.new(Photographs.jpeg(seed)), "photo.jpg").value
    end
  end
  let(:lesson) do
    Roost::Core::Lesson.new(title: "Marsh", slides: [
                              slide("one", heading: "One reed", pictures: photographs.first(1)),
                              slide("six", heading: "Six reeds", pictures: photographs),
                              slide("q", heading: "Which bird?", prompt: game_choice(time_limit: 20))
                            ], sections: [section("round", "game", %w[q])])
  end
  let(:session) { kept_session(account, lesson) }
  let(:seat) { seat_window(:ada, session, as: "Ada", driver: :chromium_phone) }

  # @param kilobits [Integer, nil] a second; nil: as fast as it goes
  def line(kilobits)
    bytes = kilobits ? kilobits * 1000 / 8 : -1
    seat.driver.browser.execute_cdp("Network.enable")
    seat.driver.browser.execute_cdp("Network.emulateNetworkConditions", offline: false, latency: kilobits ? 400 : 0,
                                                                        downloadThroughput: bytes, uploadThroughput: bytes)
  end

  def clock = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  # Seconds until the block is true, up to a limit.
  def seconds_until(limit = 30)
    began = clock
    sleep 0.02 until yield || clock - began > limit
    clock - began
  end

  def complete
    seat.evaluate_script(<<~JS)
      [...document.querySelectorAll("#seat img")].filter((img) => img.complete && img.currentSrc.includes("/media/")).length
    JS
  end

  before do
    session
    seat
    line(400)
  end

  after { line(nil) }

  it "has one photograph within 3 s, and the first of six", :aggregate_failures do
    began = clock
    command(session, "begin")
    expect(seat).to have_css("h1", text: "One reed")
    seconds_until { complete == 1 }
    expect(clock - began).to be < 3
    began = clock
    command(session, "next")
    expect(seat).to have_css("h1", text: "Six reeds")
    seconds_until { complete.positive? }
    expect(clock - began).to be < 3
  end

  it "brings an answer in time while six photographs are on their way" do
    command(session, "begin")
    command(session, "next")
    seat.find("h1", text: "Six reeds")
    command(session, "next")
    command(session, "open") unless moment(session).state.open?
    seat.find("label", text: "Swallow", wait: 20)
    sleep 3
    seat.find("label", text: "Swallow").click
    pressed = clock
    seat.click_button "Hand in"
    expect(seat).to have_css(".answer-state", text: "✓ Handed in", wait: 40)
    expect(clock - pressed).to be < 3
    answer = moment(session).record.all_answers("q").values.first
    expect([answer.final, answer.late]).to eq([true, false])
    expect(moment(session).record.seconds("q")[answer.seat_id]).to be < 12
  end
end

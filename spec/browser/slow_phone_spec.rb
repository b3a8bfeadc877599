# frozen_string_literal: true

# A phone on a line of 400 kbit/s whose answers take 400 ms.
RSpec.describe "A slow phone" do
  let(:account) { teacher }
  # Others in each example: the phone keeps what it has fetched.
  taken = 0
  let(:photographs) do
    Array.new(6) do
      Roost::Operations::KeepPicture.new.call(account, StringIO.new(Photographs.jpeg(taken += 1)), "photo.jpg").value
    end
  end
  let(:lesson) do
    Roost::Core::Lesson.new(title: "Marsh", slides: [
                              slide("one", heading: "One reed", pictures: photographs.first(1)),
                              slide("words", heading: "No reed"),
                              slide("six", heading: "Six reeds", pictures: photographs.reverse),
                              slide("q", heading: "Which bird?", prompt: game_choice(time_limit: 20))
                            ], sections: [section("round", "game", %w[q])])
  end
  let(:session) { kept_session(account, lesson) }
  let(:seat) { seat_window(:ada, session, as: "Ada", driver: :chromium_phone) }

  # @param kilobits [Integer, nil] a second; nil: as fast as it goes
  def line(kilobits)
    bytes = kilobits ? kilobits * 1000 / 8 : -1
    seat.driver.browser.execute_cdp("Network.enable")
    # The page's worker fetches for it once it is there, over a line that is not this one.
    seat.driver.browser.execute_cdp("Network.setBypassServiceWorker", bypass: !kilobits.nil?)
    seat.driver.browser.execute_cdp("Network.emulateNetworkConditions", offline: false, latency: kilobits ? 400 : 0,
                                                                        downloadThroughput: bytes, uploadThroughput: bytes)
  end

  # What has been fetched from such an address: when each began and ended, in milliseconds, and its bytes.
  def fetched(path)
    seat.evaluate_script(<<~JS)
      performance.getEntriesByType("resource").filter(({ name }) => name.includes("#{path}"))
        .map(({ startTime, responseEnd, encodedBodySize }) => [startTime, responseEnd, encodedBodySize])
    JS
  end

  # Bytes of pictures that had to share the line with what came over it in that time.
  def beside(began, ended) = fetched("/media/").select { |from, to,| from < ended && to > began }.sum(&:last)

  def soon
    300.times { return if yield || sleep(0.1).nil? }
    raise "not within half a minute: #{page_now}"
  end

  # How long the page has been there, how it came to be there, how its line is, and what it has fetched.
  def page_now
    seat.evaluate_script(<<~JS)
      [Math.round(performance.now()), performance.getEntriesByType("navigation")[0].type, document.documentElement.dataset.line,
        ...performance.getEntriesByType("resource").map(({ name, startTime, responseEnd, encodedBodySize, transferSize }) =>
          [name.slice(-40), Math.round(startTime), Math.round(responseEnd), encodedBodySize, transferSize])]
    JS
  end

  # Bytes that were on the line until the first picture of a slide was there; one that the phone has takes no time.
  def until_first(heading)
    command(session, "begin")
    expect(seat).to have_css("h1", text: "One reed")
    seat.execute_script("performance.clearResourceTimings()")
    yield
    expect(seat).to have_css("h1", text: heading)
    came = nil
    soon { (came = fetched("/media/").find { |from, to, bytes| bytes.positive? && to - from > 100 }) && complete.positive? }
    beside(*came.first(2))
  end

  def complete
    seat.evaluate_script(<<~JS)
      [...document.querySelectorAll("#seat img")].filter((img) => img.complete && img.currentSrc.includes("/media/")).length
    JS
  end

  # A page whose first connection takes too long fetches itself again, and what was measured is gone.
  before do
    session
    expect(seat).to have_css("html[data-line=open]", visible: :all)
    line(400)
  end

  after { line(nil) }

  # Its line brings 50,000 bytes a second, and a request takes 400 ms. The next slide is fetched ahead, the one after is not.
  it "has the first of six photographs within 3 s" do
    expect(until_first("Six reeds") { command(session, "jump", slide: "six") }).to be_between(1_000, 100_000)
  end

  it "brings an answer in time while six photographs are on their way" do
    command(session, "begin")
    command(session, "jump", slide: "six")
    seat.find("h1", text: "Six reeds")
    2.times { command(session, "next") }
    command(session, "open") unless moment(session).state.open?
    seat.find("label", text: "Swallow", wait: 20)
    sleep 3
    seat.find("label", text: "Swallow").click
    seat.click_button "Hand in"
    expect(seat).to have_css(".answer-state", text: "✓ Handed in", wait: 40)
    expect(beside(*fetched("/answers").last.first(2))).to be < 50_000
    answer = moment(session).record.all_answers("q").values.first
    expect([answer.final, answer.late]).to eq([true, false])
    expect(moment(session).record.seconds("q")[answer.seat_id]).to be < 12
  end

  it "fetches a few kB for the emoji that are offered, and nothing for one that is typed" do
    cards = Roost::Core::Kinds::Posts::Prompt.new(id: "p", settings: {})
    board = kept_session(account, Roost::Core::Lesson.new(title: "Board", slides: [slide("s", prompt: cards)]))
    phone = seat_window(:bo, board, as: "Bo", driver: :chromium_phone)
    command(board, "begin")
    phone.find("button", text: "🐦")
    fonts = lambda do
      phone.evaluate_async_script(<<~JS)
        const done = arguments[0];
        const sizes = () => performance.getEntriesByType("resource").filter(({ name }) => name.includes("emoji"))
          .map(({ encodedBodySize }) => encodedBodySize);
        document.fonts.ready.then(() => setTimeout(() => done(sizes()), 300));
      JS
    end
    offered = fonts.call
    phone.fill_in "New card", with: "an eagle 🦅 and an owl 🦉"
    expect([offered.sum, fonts.call]).to match([be < 8_000, offered])
  end
end

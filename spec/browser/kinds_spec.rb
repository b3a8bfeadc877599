# frozen_string_literal: true

RSpec.describe "Ways to answer, in real windows" do
  let!(:account) { teacher }

  def value = database[:answers].order(:seq).reverse.get(:value)&.to_h

  def running(prompt, driver: :chromium_phone, **parts)
    slides = [slide("s1", heading: "Try", prompt: prompt, **parts)]
    session = kept_session(account, Roost::Core::Lesson.new(title: "Marsh", slides: slides))
    student = seat_window(:ada, session, as: "Ada", driver: driver)
    command(session, "begin")
    [session, student]
  end

  describe "a number" do
    let(:prompt) do
      Roost::Core::Kinds::Number::Prompt.new(id: "p1", settings: { "unit" => "km", "value" => "3.5", "tolerance" => "0.1" })
    end

    it "is typed as people type, refused in one sentence, and told with its key" do
      session, student = running(prompt)
      student.find_field("Type a number, in km").set("about three")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "That is not a number we can read.")
      student.find_field("Type a number, in km").set("3,45 km")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(value).to eq({ "text" => "3,45 km", "number" => "69/20" })
      expect_accessible(student)
      command(session, "close")
      %w[results key].each { |what| command(session, "show", what: what) }
      expect(student).to have_css(".outcome", text: "✓ Right")
      expect(student).to have_css("svg.chart[aria-label*='Median: 3.45 km']")
    end

    it "stays with the teacher as a line of dots, far-off ones by name, and comes back after a reload" do
      session, student = running(prompt)
      student.find_field("Type a number, in km").set("40")
      eventually { value && value["number"] == "40/1" }
      student.refresh
      expect(student.find_field("Type a number, in km").value).to eq("40")
      [3, 3.4, 3.5, 3.6, 4].each_with_index do |number, place|
        seat = take_seat(session, "Student #{place}").first
        save(session, seat, "s1", { "number" => [number.to_s] })
      end
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_css(".chart-dot", count: 6)
      expect(desk).to have_css(".chart-dot.is-far", count: 1)
      expect(desk.find(".entry", text: "Ada")).to have_css(".tag", text: "far off")
      expect_accessible(desk)
    end
  end

  describe "gaps" do
    def gaps(**settings)
      text = "Swallows leave in [[September | autumn]] after the [[insects]] have gone."
      Roost::Core::Kinds::Gaps::Prompt.new(id: "p1", settings: { "text" => text }.merge(settings.transform_keys(&:to_s)))
    end

    it "are typed on a phone, kept through a reload, told in part, with what was often put instead" do
      session, student = running(gaps)
      student.fill_in "Gap 1", with: "Autunm"
      student.fill_in "Gap 2", with: "seeds"
      eventually { value == { "gaps" => %w[Autunm seeds] } }
      student.refresh
      expect(student.find_field("Gap 2").value).to eq("seeds")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect_accessible(student)
      command(session, "close")
      %w[results key].each { |what| command(session, "show", what: what) }
      expect(student).to have_css(".outcome", text: "◐ Partly right")
      expect(student).to have_css(".bar-row.is-right", text: "September, autumn")
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_css(".gap-wrong", text: "often instead: “seeds” (1)")
      expect_accessible(desk)
    end

    it "are chosen from a bank by keyboard alone" do
      _session, student = running(gaps(bank: true, distractors: %w[spring seeds]), driver: :chromium)
      expect(student.find_field("Gap 1").all("option").map(&:text).sort).to eq(["", "September", "insects", "seeds", "spring"])
      student.find_field("Gap 1").send_keys("Sept")
      student.find_field("Gap 2").send_keys("inse")
      student.find_button("Hand in").send_keys(:enter)
      eventually { value == { "gaps" => %w[September insects] } }
      expect(complaints(student)).to be_empty
    end
  end

  describe "words" do
    let(:prompt) { Roost::Core::Kinds::Words::Prompt.new(id: "p1", settings: { "most" => 2 }) }

    it "stand each in its own field again where a page is made anew before they could be sent" do
      _session, student = running(prompt)
      hold_up(student, "*/answers/*")
      student.fill_in "Word 2", with: "mud"
      student.fill_in "Word 1", with: "reeds"
      student.refresh
      expect(student).to have_css(".answer-state", text: "On this device")
      expect(%w[1 2].map { |number| student.find_field("Word #{number}").value }).to eq(%w[reeds mud])
      hold_up(student)
      student.fill_in "Word 1", with: "dusk"
      eventually { value == { "words" => %w[dusk mud] } }
    end

    it "are given on a phone, kept through a reload, and gather into a cloud with its figures" do
      session, student = running(prompt)
      student.fill_in "Word 1", with: "Reeds!"
      student.fill_in "Word 2", with: "mud"
      eventually { value == { "words" => %w[Reeds! mud] } }
      student.refresh
      expect(%w[1 2].map { |number| student.find_field("Word #{number}").value }).to eq(%w[Reeds! mud])
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect_accessible(student)
      seat = take_seat(session, "Bo").first
      save(session, seat, "s1", { "words" => ["reeds"] })
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_css("svg.cloud[aria-label$='eeds 2, mud 1']")
      desk.click_button "Results up"
      expect(student).to have_css(".cloud text", text: "mud")
      desk.find(".desk-answers .cloud text", text: "eeds").click
      expect(desk).to have_css(".word-list details[open]", text: "Ada, Bo")
      expect_accessible(desk)
      desk.find(".word-list details[open]").click_button "Remove for all"
      expect(student).to have_no_css(".cloud text", text: "eeds")
      expect(student).to have_css(".cloud text", text: "mud")
      desk.click_button "Put back"
      expect(student).to have_css(".cloud text", text: "eeds")
    end
  end

  describe "an order" do
    let(:prompt) do
      items = Roost::Core::Kinds::Order::Prompt.items(%w[Egg Chick Fledgling Adult])
      Roost::Core::Kinds::Order::Prompt.new(id: "p1", settings: { "items" => items, "made" => 4 })
    end

    def texts(student) = student.all(".order-text").map(&:text)

    # One step at a time, by whatever the block does to the item that has to go up.
    def sort(student, wanted)
      wanted.each_with_index do |text, place|
        yield student.find(".order-item", text: text) until texts(student).index(text) <= place
      end
    end

    it "is made with arrow buttons on a phone, told in part, and shown as who put what where" do
      session, student = running(prompt)
      sort(student, %w[Egg Fledgling Chick Adult]) { |item| item.click_button("earlier") }
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(value["order"]).to eq(%w[i1 i3 i2 i4])
      expect_accessible(student)
      command(session, "close")
      %w[results key].each { |what| command(session, "show", what: what) }
      expect(student).to have_css(".outcome", text: "◐ Partly right")
      expect(student).to have_css(".order-table .is-own", count: 4)
      expect(texts(student).first(4)).to eq(%w[Egg Fledgling Chick Adult])
    end

    it "is made by keyboard alone, and by dragging, and survives a reload" do
      _session, student = running(prompt, driver: :chromium)
      wanted = texts(student).reverse # whatever order the seat has got
      ids = wanted.map { |text| prompt.settings["items"].find { |item| item["text"] == text }["id"] }
      sort(student, wanted) { |item| item.send_keys(:up) }
      expect(student).to have_css(".order-list [role=status]", text: /place \d of 4/, visible: :all)
      eventually { value && value["order"] == ids }
      student.refresh
      expect(texts(student)).to eq(wanted)
      first, last = student.all(".order-item").values_at(0, 3)
      action = student.driver.browser.action.click_and_hold(last.native).move_by(0, -12)
      action.move_to(first.native, 0, -8).move_by(0, -4).release.perform
      eventually { value["order"].first == ids.last }
      expect(complaints(student)).to be_empty
    end
  end

  describe "spots" do
    let(:picture) do
      upload = File.join(Roost::Settings::ROOT, "demo/pictures/map.svg")
      Roost::Operations::KeepPicture.new.call(account, StringIO.new(File.read(upload)),
                                              "map.svg").value.described("Map of the marsh")
    end

    def spots(**settings)
      regions = [{ "id" => "r1", "shape" => "rectangle", "numbers" => [0.0, 0.0, 0.5, 0.5], "wanted" => 1, "name" => "North" }]
      settings = { "most" => 2, "regions" => regions }.merge(settings.transform_keys(&:to_s))
      Roost::Core::Kinds::Spots::Prompt.new(id: "p1", settings: settings)
    end

    def points = value && value["spots"].map { |spot| [spot["x"].round(1), spot["y"].round(1)] }

    # A tap so far from the middle of the picture, in parts of its width and height.
    def tap(student, across, down)
      map = student.find(".spot-picture .spot-map")
      map.click(x: (map.rect.width * (across - 0.5)).round, y: (map.rect.height * (down - 0.5)).round)
    end

    it "are placed by a finger, moved, taken away, kept through a reload, and told" do
      session, student = running(spots, pictures: [picture])
      tap(student, 0.2, 0.2)
      tap(student, 0.8, 0.8)
      tap(student, 0.5, 0.1)
      expect(student).to have_css(".spot-picture [role=status]", text: /\AAll 2 spots are placed\./, visible: :all)
      eventually { points == [[0.2, 0.2], [0.8, 0.8]] }
      student.refresh
      expect(student).to have_css(".spot", count: 2)
      spot = student.all(".spot").last
      student.driver.browser.action.click_and_hold(spot.native).move_by(0, -60).move_by(0, -40).release.perform
      eventually { points.last[1] < 0.6 }
      expect(student).to have_css(".spot", count: 2)
      student.click_button "Remove spot 2"
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(points).to eq([[0.2, 0.2]])
      expect_accessible(student)
      command(session, "close")
      %w[results key].each { |what| command(session, "show", what: what) }
      expect(student).to have_css(".outcome", text: "✓ Right")
      expect(student).to have_css(".spot-result .spot-count", text: "North: 1")
    end

    it "keep the picture's shape on a wide and low screen, so that nothing beside it can be tapped" do
      _session, student = running(spots, driver: :chromium_small, pictures: [picture])
      map = student.find(".spot-picture .spot-map").rect
      expect(map.width / map.height).to be_within(0.02).of(800.0 / 600)
      expect(map.height).to be <= 0.7 * 768
    end

    it "aren't placed by two fingers that zoom, nor by one that scrolls" do
      _session, student = running(spots, pictures: [picture])
      map = student.find(".spot-picture .spot-map").rect
      x = (map.x + (map.width / 2)).round
      y = (map.y + 90).round
      touch = lambda { |type, *points|
        student.driver.browser.execute_cdp("Input.dispatchTouchEvent", type: type, touchPoints: points)
      }
      at = ->(by) { [{ x: x - by, y: y, id: 0 }, { x: x + by, y: y, id: 1 }] }
      touch.call("touchStart", *at.call(10))
      [30, 50, 70].each { |by| touch.call("touchMove", *at.call(by)) }
      touch.call("touchEnd")
      touch.call("touchStart", { x: x, y: y, id: 2 })
      [20, 40, 60].each { |by| touch.call("touchMove", { x: x, y: y - by, id: 2 }) }
      touch.call("touchEnd")
      expect(student).to have_no_css(".spot")
      # While the page still glides, a tap only stops it; the next one counts.
      4.times do
        touch.call("touchStart", { x: x, y: y, id: 3 })
        touch.call("touchEnd")
        break if student.has_css?(".spot", wait: 1)
      end
      expect(student).to have_css(".spot", count: 1)
    end

    it "are placed by keyboard alone, and named where that is asked" do
      session, student = running(spots(labels: true, regions: []), driver: :chromium, pictures: [picture])
      student.find_button("Add a spot in the middle").send_keys(:enter)
      student.fill_in "Name of spot 1", with: "Ferry"
      student.find(".spot").send_keys(:right, :right, :up)
      student.find_button("Hand in").send_keys(:enter)
      eventually { value == { "spots" => [{ "x" => 0.54, "y" => 0.48, "label" => "Ferry" }] } }
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_css(".spot-result .spot-label", text: "Ferry")
      expect(desk).to have_css(".entry svg[aria-label='Ferry: 54 % across, 48 % down']")
      expect_accessible(desk)
      expect(complaints(student)).to be_empty
    end

    it "have their regions drawn in the builder, by dragging and by keyboard" do
      id = kept_lesson(account,
                       Roost::Core::Lesson.new(title: "Marsh",
                                               slides: [slide("s1", prompt: spots(regions: []), pictures: [picture])]))
      builder = sign_in_window
      builder.visit "/lessons/#{id}"
      expect(builder).to have_css(".problems", text: "No key yet")
      builder.click_button "+ Circle"
      body = builder.find(".region-body")
      builder.execute_script("arguments[0].scrollIntoView({block: 'center'})", body)
      body.send_keys(*([:left] * 10))
      body = builder.find(".region-body").native
      builder.driver.browser.action.click_and_hold(body).move_by(0, -20).move_by(0, -20).release.perform
      builder.find(".region-handle", match: :first).send_keys(:right, :right)
      builder.fill_in "Name of region 1", with: "Heron Pool"
      kept = -> { Roost::Store::Lessons.new.find(account, id).lesson.slides.first.prompt }
      eventually { kept.call.regions.map(&:name) == ["Heron Pool"] }
      x, y, across, = kept.call.regions.first.numbers
      expect([x, across]).to eq([0.4, 0.14])
      expect(y).to be < 0.45
      builder.click_button "+ Polygon"
      eventually { kept.call.regions.length == 2 }
      expect(builder).to have_no_css(".problems", text: "No key yet")
      expect_accessible(builder)
      expect(complaints(builder)).to be_empty
    end
  end

  describe "pairs" do
    def match(**settings)
      rows = Roost::Core::Kinds::Match::Rows.of([%w[Swallow insects], %w[Heron fish], %w[Bunting seeds], [nil, "bread"]])
      Roost::Core::Kinds::Match::Prompt.new(id: "p1", settings: { "rows" => rows }.merge(settings.transform_keys(&:to_s)))
    end

    def pair(student, left, right)
      student.find("[data-left]", text: left).click
      student.find("[data-right]", text: right).click
    end

    it "are made by tapping on a phone, changed, taken apart, kept through a reload, and told" do
      session, student = running(match)
      pair(student, "Swallow", "fish")
      pair(student, "Heron", "fish")
      pair(student, "Bunting", "bread")
      eventually { value && value["pairs"] == { "m1" => "m2", "m2" => "m2", "m3" => "m4" } }
      student.refresh
      expect(student.find("[data-left]", text: "Bunting")).to have_css(".match-mate", text: "bread")
      student.click_button "Separate Bunting"
      pair(student, "Swallow", "insects")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(value["pairs"]).to eq({ "m1" => "m1", "m2" => "m2" })
      expect_accessible(student)
      command(session, "close")
      %w[results key].each { |what| command(session, "show", what: what) }
      expect(student).to have_css(".outcome", text: "◐ Partly right")
      expect(student).to have_css(".bar-row.is-right", text: "Heron – fish")
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      desk.find("summary", text: "Who was paired with what").click
      expect(desk).to have_css(".heat.is-own", count: 3)
      expect_accessible(desk)
    end

    it "are made by keyboard alone and by dragging, and joined by lines" do
      _session, student = running(match, driver: :chromium)
      student.find("[data-left]", text: "Swallow").send_keys(:enter)
      student.find("[data-right]", text: "insects").send_keys(:enter)
      expect(student).to have_css(".match-pairs [role=status]", exact_text: "Swallow with insects. 1 of 3 paired.", visible: :all)
      left, right = { "[data-left]" => "Heron", "[data-right]" => "fish" }.map do |each, text|
        student.find(each, text: text).native
      end
      student.driver.browser.action.click_and_hold(left).move_by(40, 4).move_to(right).release.perform
      expect(student).to have_css(".match-lines path", count: 2)
      eventually { value && value["pairs"] == { "m1" => "m1", "m2" => "m2" } }
      expect(complaints(student)).to be_empty
    end

    it "are found as cards lying face down, and tries are counted" do
      session, student = running(match(game: true))
      rows = { "m1" => %w[Swallow insects], "m2" => %w[Heron fish], "m3" => %w[Bunting seeds] }
      cards = ->(row) { student.all(".card-back", count: 6).select { |card| rows[row].include?(card.text(:all).strip) } }
      [cards.call("m1").first, cards.call("m2").first].each(&:click)
      expect(student).to have_css(".card-back.is-up", count: 2)
      expect(student).to have_no_css(".card-back.is-up")
      %w[m1 m2].each_with_index do |row, found|
        cards.call(row).each(&:click)
        expect(student).to have_css(".card-back.is-found", count: 2 * (found + 1))
      end
      expect(student).to have_css(".card-count", text: "2 of 3 pairs · 3 tries")
      eventually { value && value["tries"] == 3 }
      student.refresh
      expect(student).to have_css(".card-back.is-found", count: 4)
      cards.call("m3").each(&:click)
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(value).to eq({ "pairs" => { "m1" => "m1", "m2" => "m2", "m3" => "m3" }, "tries" => 4 })
      expect_accessible(student)
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_css(".bars-note", text: "1 of 1 found every pair · 4 tries in the middle of the class")
    end
  end

  describe "posts" do
    def posts(**settings)
      Roost::Core::Kinds::Posts::Prompt.new(id: "p1",
                                            settings: { "columns" => %w[Stays Leaves] }.merge(settings.transform_keys(&:to_s)))
    end

    def add(student, text)
      student.fill_in "New card", with: text
      student.click_button "Add this card"
    end

    it "wait for the teacher, are shown, liked, pinned, sorted, and removed for all" do
      session, student = running(posts)
      other = seat_window(:bo, session, as: "Bo")
      screen = window(:screen).tap { |each| each.visit "/screen/#{session.screen_key}" }
      add(student, "Do they sleep in the air?")
      add(student, "Something rude")
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_css(".board-head", text: "Waiting for you · 2")
      expect(screen).to have_css(".none", text: "2 waiting for your teacher")
      desk.find(".post", text: "air").click_button "Show"
      expect(screen).to have_css(".post", text: "Do they sleep in the air?")
      expect(other).to have_css(".seat-result .post", count: 1)
      desk.find(".post", text: "rude").click_button "Remove"
      expect(desk).to have_css("summary", text: "Removed · 1")
      other.find(".card-like").click
      expect(desk).to have_css(".card-likes", text: "1")
      expect(other).to have_css(".card-like[aria-pressed=true]", text: "1")
      desk.click_button "→ Leaves"
      expect(screen).to have_css(".board-column", text: /Leaves.*Do they sleep/m)
      expect(desk).to have_css(".board-column", text: /Leaves.*Do they sleep/m)
      desk.click_button "Pin"
      expect(screen).to have_css(".post.is-pinned")
      [student, other, desk].each { |each| expect_accessible(each) }
      desk.find(".desk-panel .post", text: "air").click_button "Remove"
      expect(other).to have_no_css(".post", text: "air")
      expect(screen.html).not_to match(/rude|Ada/)
      expect([student, other, desk].flat_map { |each| complaints(each) }).to be_empty
    end

    it "come at once to all where the teacher wants it so, with a picture, survive a reload, and go when taken back" do
      session, student = running(posts(approve: false, named: true), driver: :chromium)
      other = seat_window(:bo, session, as: "Bo", driver: :chromium_phone)
      student.attach_file("Picture or camera", File.join(Roost::Settings::ROOT, "docs/screenshots/desk-answers.png"),
                          make_visible: true)
      expect(student).to have_css(".post-state", text: "Picture ready.")
      student.click_button "🐦"
      add(student, "Look")
      expect(other).to have_css(".seat-result .post", text: /🐦.*Look.*Ada/m)
      expect(other).to have_css(".seat-result .card-picture[width='1280']")
      student.fill_in "New card", with: "half a thou"
      eventually { value["writing"] == "half a thou" }
      student.refresh
      expect(student.find_field("New card").value).to eq("half a thou")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(other).to have_css(".seat-result .post", count: 2)
      student.click_button "Change my answer"
      student.click_button "Remove this card", match: :first
      expect(other).to have_css(".seat-result .post", count: 1, text: "half a thou")
      expect([student, other].flat_map { |each| complaints(each) }).to be_empty
    end

    it "are leafed through by the teacher, and all on each device" do
      session, student = running(posts(approve: false))
      (1..14).each do |number|
        card = { "id" => "p1", "text" => "Card #{number}", "at" => number }
        save(session, take_seat(session, "Student #{number}").first, "s1", { "posts" => [JSON.generate([card])] })
      end
      screen = window(:screen).tap { |each| each.visit "/screen/#{session.screen_key}" }
      expect(screen).to have_css(".post", count: 12)
      expect(screen).to have_text("Page 1 of 2")
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      expect(desk).to have_button("‹ Page", disabled: true)
      desk.click_button "Page ›"
      expect(screen).to have_css(".post", count: 2)
      expect(screen).to have_css(".post", text: "Card 14")
      expect(desk).to have_button("Page ›", disabled: true)
      expect_accessible(desk)
      expect_accessible(screen)
      student.refresh
      expect(student).to have_css(".seat-result .post", count: 14)
    end

    it "stay handed in when a card of somebody else is liked" do
      session, student = running(posts(approve: false))
      save(session, take_seat(session, "Bo").first, "s1", { "posts" => ['[{"id":"p1","text":"Hello","at":1}]'] })
      add(student, "Mine")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      student.find(".seat-result .post", text: "Hello").find(".card-like").click
      eventually { value["likes"].length == 1 }
      expect(database[:answers].order(:seq).reverse.get(:final)).to be(true)
      student.refresh
      expect(student.find(".seat-result .post", text: "Hello")).to have_css("[aria-pressed=true]")
    end
  end

  describe "writing" do
    it "sets an equation as it is typed, and shows it to the class as one" do
      session, student = running(writing(id: "p1", size: "equation"))
      field = student.find_field("Write an equation")
      field.set("d=")
      student.click_button "½"
      field.send_keys("t")
      expect(field.value).to eq('d=\\frac{t}{}')
      field.set('d=\\frac{t}{3}')
      expect(student).to have_css(".equation-preview .katex .mfrac")
      student.click_button "Hand in"
      expect(student).to have_css(".answer-state", text: "✓ Handed in.")
      expect(value).to eq({ "text" => 'd=\\frac{t}{3}' })
      expect_accessible(student)
      command(session, "show", what: "results")
      expect(student).to have_css(".seat-result .katex .mfrac")
      expect(complaints(student)).to be_empty
    end

    it "in several boxes reaches the teacher while it is written, and similar answers stand together" do
      session, student = running(writing(id: "p1", size: "line", boxes: ["I saw", "I think"]), driver: :chromium)
      desk = sign_in_window
      desk.visit "/desk/#{session.id}"
      student.find_field("I saw").send_keys(*"A heron in the reeds at dusk".chars.each_slice(4).map(&:join))
      expect(desk).to have_css(".entry", text: /Ada.*writing.*I saw: A heron/m)
      seats = Array.new(3) { |place| take_seat(session, "Student #{place}").first }
      tops = ->(of) { desk.evaluate_script("[...document.querySelectorAll('#{of}')].map((each) => each.offsetTop)") }
      expect(desk).to have_css(".perch", text: "Student", count: 3)
      given = ["They follow the river", "By the stars", "they follow the river."].each_with_index.map do |text, place|
        before = tops.call(".perch")
        save(session, seats[place], "s1", { "box0" => ["x"], "box1" => [text] })
        expect(desk).to have_css(".perch.is-answered", count: place + 1)
        expect(tops.call(".perch")).to eq(before)
        tops.call(".texts > li")
      end
      expect(desk).to have_css(".desk-panel .is-group", text: /They follow the river\s*× 2/)
      expect(given.last).to eq(given[1])
      command(session, "show", what: "results")
      expect(student).to have_css(".seat-result .text-parts section", count: 2)
      expect(student).to have_css(".seat-result section", text: /I think.*They follow the river × 2.*By the stars/m)
      expect_accessible(desk)
      student.refresh
      expect(student.find_field("I saw").value).to eq("A heron in the reeds at dusk")
    end
  end
end

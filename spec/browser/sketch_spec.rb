# frozen_string_literal: true

RSpec.describe "Sketching at a seat" do
  let(:session) { kept_session(teacher) }
  let(:seat) { seat_window(:ada, session, as: "Ada", driver: :chromium_phone) }

  before do
    session
    seat
    command(session, "begin")
    command(session, "jump", slide: "s5")
    seat.find(".sheet")
  end

  # A stroke from a place on the sheet, in pixels from its middle.
  def draw(from, *steps)
    action = seat.driver.browser.action.move_to(seat.find(".sheet").native, *from).click_and_hold
    steps.each { |step| action = action.move_by(*step) }
    action.release.perform
  end

  def tools = strokes.map { |stroke| stroke["tool"] }

  def strokes
    kept = moment(session).record.all_answers("s5").values.first
    kept ? kept.value["strokes"] : []
  end

  # What the device draws and what we draw of it, as pictures.
  # @return [Float] mean difference of their pixels, 0 to 255
  def difference(drawn, kept)
    sheet = lambda do |inside|
      paper = %(<rect width="100%" height="100%" fill="#fff"/>)
      %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 900">#{paper}#{inside}</svg>)
    end
    device, ours = [drawn, Roost::Web::Strokes.svg(kept)].map do |inside|
      Vips::Image.new_from_buffer(Roost::Exchange::Raster.draw(sheet.call(inside), 600), "")
    end
    (device - ours).abs.avg
  end

  it "is drawn alike by the device and by us, whatever the tool" do
    tools = Roost::Core::Drawing::Strokes::TOOLS.keys
    made = tools.each_with_index.map do |tool, place|
      left = 60 + (place * 130)
      points = { "text" => [left, 400], "sticker" => [left + 40, 600] }.fetch(tool) do
        [left, 150 + (place * 40), left + 190, 420]
      end
      points += [left + 100, 700, left + 20, 650] if %w[pen highlighter].include?(tool)
      { "tool" => tool, "colour" => Roost::Core::Drawing::Sheet::COLOURS.keys[place % 5], "points" => points,
        "text" => ("heron <3" if tool == "text"), "sticker" => ("eye" if tool == "sticker"),
        "pressure" => ([2, 2, 9, 5] if tool == "pen") }.compact
    end
    script = <<~JS
      const pad = document.querySelector("sketch-pad");
      pad.field.value = arguments[0];
      pad.load();
      return pad.layer.innerHTML;
    JS
    made.each_index do |place|
      some = made[0..place]
      drawn = seat.driver.browser.execute_script(script, JSON.generate(some))
      expect([place, difference(drawn, some)]).to match([place, be < 0.05])
    end
    expect(difference(seat.driver.browser.execute_script(script, "[]"), made)).to be > 1 # it would be seen
  end

  it "keeps a straight line of two points in the chosen colour" do
    seat.click_button "Line"
    seat.click_button "Rust"
    draw([-90, 0], [40, 30], [60, -30])
    eventually { tools == ["line"] }
    expect(strokes.first).to include("colour" => "rust")
    expect(strokes.first["points"].length).to eq(4)
  end

  it "rubs out what it touches and nothing else, and undo brings it back" do
    draw([-90, -60], [60, 0])
    draw([-90, 60], [60, 0])
    eventually { tools == %w[pen pen] }
    seat.click_button "Eraser"
    draw([-60, -60], [4, 0])
    eventually { tools == %w[pen] }
    expect(strokes.first["points"][1]).to be > 450
    seat.click_button "Undo"
    eventually { tools == %w[pen pen] }
  end

  it "puts words where the sheet is tapped, or in the middle by keyboard" do
    seat.click_button "Text"
    words = seat.find(".sketch-words input")
    words.send_keys("long feathers")
    draw([-60, -40])
    eventually { strokes.map { |stroke| stroke["text"] } == ["long feathers"] }
    words.send_keys("body", :enter)
    eventually { strokes.last.slice("text", "points") == { "text" => "body", "points" => [600, 450] } }
  end

  it "clears the sheet, and undo brings everything back, also after a reload" do
    draw([-90, -60], [60, 12])
    draw([-90, 60], [60, 12])
    eventually { tools == %w[pen pen] }
    seat.click_button "Clear"
    eventually { tools.empty? }
    seat.click_button "Undo"
    eventually { tools == %w[pen pen] }
    seat.refresh
    expect(seat).to have_css(".sheet-strokes polyline", count: 2)
    seat.click_button "Undo"
    eventually { tools == %w[pen] }
  end

  it "draws arrows, boxes and stickers, and rubs them out by their outline" do
    seat.click_button "Arrow"
    draw([-90, -60], [60, 20])
    seat.click_button "Box"
    draw([-60, -20], [70, 60])
    seat.click_button "Sticker: star"
    draw([60, 60])
    eventually { tools == %w[arrow rectangle sticker] }
    expect(strokes.last).to include("sticker" => "star")
    expect(seat).to have_css(".sheet-strokes rect")
    seat.click_button "Eraser"
    draw([-25, 10], [4, 0]) # inside the box: nothing is there
    draw([-60, 0], [2, 0]) # its left edge
    eventually { tools == %w[arrow sticker] }
  end

  it "is watched while a stroke is still being drawn, and laid over the others for the class" do
    desk = sign_in_window
    desk.visit "/desk/#{session.id}"
    action = seat.driver.browser.action(duration: 100).move_to(seat.find(".sheet").native, -90, 0).click_and_hold
    12.times { |step| action = action.move_by(12, step.even? ? 6 : -6) }
    action.perform # and not released
    eventually { strokes.length == 1 && strokes.first["points"].length > 8 }
    expect(desk).to have_css(".entry .review-sketch img", wait: 3)
    seat.driver.browser.action.release.perform
    other = take_seat(session, "Bo").first
    save(session, other, "s5", { "strokes" => [JSON.generate([{ tool: "ellipse", colour: "moss", points: [0, 0, 600, 450] }])] })
    screen = window(:screen).tap { |each| each.visit "/screen/#{session.screen_key}" }
    desk.click_button "Results up"
    expect(screen).to have_css(".drawings .drawing img", count: 2)
    desk.click_button "All on one sheet"
    expect(screen).to have_css(".drawings-over img.is-3", count: 2)
    desk.click_button "Stronger"
    expect(screen).to have_css(".drawings-over img.is-4", count: 2)
    desk.click_button "Side by side"
    expect(screen).to have_css(".drawings .drawing img", count: 2)
    desk.find(".entry", text: "Ada").click_button "with name"
    expect(screen).to have_css(".spotlight", text: "Ada")
    desk.click_button "Next answer"
    expect(screen).to have_css(".spotlight", text: "Bo")
    desk.find(".entry", text: "Ada").click_button "beside"
    expect(screen).to have_css(".spotlight", count: 2)
    expect_accessible(desk)
  end

  it "is drawn by keyboard alone, with every tool" do
    sheet = seat.find(".sketch-pad .sheet")
    sheet.send_keys(:space, *([:right] * 5), *([:down] * 3), :space)
    eventually { tools == %w[pen] }
    expect(strokes.first["points"].values_at(0, 1, -2, -1)).to eq([600, 450, 700, 510])
    seat.find_button("Box").send_keys(:enter)
    sheet.send_keys(:enter, :left, :left, %i[shift up], :enter)
    seat.find_button("Sticker: tick").send_keys(:enter)
    sheet.send_keys(:enter)
    eventually { tools == %w[pen rectangle sticker] }
    expect(strokes[1]["points"]).to eq([700, 510, 660, 505])
    seat.find_button("Eraser").send_keys(:enter)
    sheet.send_keys(:space, :right, :right, :space)
    eventually { [%w[], %w[pen]].include?(tools) }
    expect_accessible(seat)
  end

  it "shows the whole sheet on a phone that lies on its side" do
    sized(800, 400)
    box = "document.querySelector('.sketch-pad .sheet').getBoundingClientRect()"
    width, height = seat.evaluate_script("[#{box}.width, #{box}.height]")
    bar = seat.evaluate_script("document.querySelector('.seat-top').getBoundingClientRect().height")
    expect([width / height, height]).to match([be_within(0.02).of(4 / 3.0), be_between(200, 400 - bar)])
  ensure
    sized(*Browser::PHONE)
  end

  def sized(width, height)
    seat.driver.browser.execute_cdp("Emulation.setDeviceMetricsOverride", width: width, height: height, deviceScaleFactor: 1,
                                                                          mobile: true)
  end
end

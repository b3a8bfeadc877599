# frozen_string_literal: true

RSpec.describe "The pen" do
  let(:session) { kept_session(teacher) }
  let(:desk) { sign_in_window(at: "/desk/#{session.id}") }
  let(:screen) { window(:screen).tap { |each| each.visit "/screen/#{session.screen_key}" } }
  let(:seat) { seat_window(:ada, session, as: "Ada", driver: :chromium_phone) }

  before { command(session, "begin") }

  # Draws across the sheet of a window.
  def draw(window, *steps, from: [-60, -20])
    steps = [[40, 10], [40, 20]] if steps.empty?
    action = window.driver.browser.action.move_to(window.find("ink-sheet[data-pen=true] svg.ink").native, *from).click_and_hold
    steps.each { |step| action = action.move_by(*step) }
    action.release.perform
  end

  def lines(window) = window.all("ink-sheet svg.ink polyline", visible: :all)

  def points(window) = lines(window).map { |line| line["points"] }.uniq

  it "writes over the slide on every device at the same place; undo, eraser, and the pen put away" do
    [screen, seat].each(&:itself)
    desk.click_button "Pen"
    [screen, seat].each { |each| expect(each).to have_css("ink-sheet") }
    draw(desk)
    [screen, seat].each { |each| expect(each).to have_css("ink-sheet polyline", count: 1, visible: :all) }
    expect(database[:ink].select_map(:page).uniq).to eq(["s1"])
    expect([points(screen), points(seat)].uniq).to eq([points(desk)])
    draw(desk, [20, 60], from: [30, 0])
    expect(screen).to have_css("ink-sheet polyline", count: 2, visible: :all)
    desk.click_button "Undo"
    expect(screen).to have_css("ink-sheet polyline", count: 1, visible: :all)
    desk.find("label", text: "Eraser").click
    draw(desk)
    [screen, seat].each { |each| expect(each).to have_no_css("ink-sheet polyline", visible: :all) }
    desk.click_button "Pen away"
    expect(desk).to have_no_css("[data-pen=true]")
    expect([desk, screen, seat].flat_map { |each| complaints(each) }).to eq([])
  end

  it "has blank pages, all of which a device that comes late gets, and stays with its page" do
    desk.click_button "Pen"
    draw(desk)
    desk.click_button "Squared page"
    expect(desk).to have_css(".paper.is-squared")
    draw(desk, [10, 40])
    expect(screen).to have_css(".paper.is-squared")
    expect(screen).to have_css("ink-sheet polyline", count: 1, visible: :all)
    desk.click_button "Back to the slide"
    expect(screen).to have_no_css(".paper")
    expect(seat).to have_css("ink-sheet polyline", count: 1, visible: :all)
    desk.click_button "Page 1 again"
    expect(seat).to have_css(".paper.is-squared")
    expect(database[:ink].select_order_map(:page).uniq).to eq(%w[board-1 s1])
  end

  it "writes at the board itself, and points without leaving anything behind" do
    desk.click_button "Pen"
    board = sign_in_window(:board, at: "/desk/#{session.id}/board")
    draw(board)
    expect(screen).to have_css("ink-sheet polyline", count: 1, visible: :all)
    board.find("label", text: "Pointer").click
    sheet = board.find("ink-sheet svg.ink").native
    [[0, 0], [20, 10]].each { |place| board.driver.browser.action.move_to(sheet, *place).perform }
    expect(screen).to have_css(".ink-pointer", visible: :all)
    expect(screen).to have_no_css(".ink-pointer", visible: :all, wait: 4)
    expect(database[:ink].select_map(:stroke).uniq.length).to eq(1)
    expect(screen.evaluate_script("document.querySelector('.ink-tools')")).to be_nil
  end

  it "is kept with the session, page by page, and looked back on" do
    desk.click_button "Pen"
    draw(desk)
    desk.click_button "Ruled page"
    expect(desk).to have_css(".paper")
    draw(desk, [10, 40])
    expect(screen).to have_css("ink-sheet polyline", count: 1, visible: :all)
    command(session, "end")
    desk.visit "/results/#{session.id}"
    desk.click_link "Drawn"
    expect(desk).to have_css(".drawn-page polyline", count: 2, visible: :all)
    expect(desk.all(".drawn-page figcaption").map(&:text)).to eq(["Dusk over the marsh", "Blank page 1"])
    expect_accessible(desk)
  end

  it "keeps what is drawn while its line is lost, and sends it when that is back" do
    desk.click_button "Pen"
    expect(desk).to have_css("[data-pen=true]")
    offline(desk, true)
    draw(desk)
    expect(desk).to have_css(".ink-tools [role=status]", text: "What you draw stays here")
    expect(database[:ink].count).to eq(0)
    offline(desk, false)
    drawn = points(desk)
    expect(drawn.length).to eq(1)
    expect(screen).to have_css(%(ink-sheet polyline[points="#{drawn.first}"]), count: 1, visible: :all)
  end
end

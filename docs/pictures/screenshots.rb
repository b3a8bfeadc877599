# frozen_string_literal: true

require "roost"
require_relative "../../bench/server"
require_relative "../../spec/support/browser"
require_relative "../../spec/support/builders"
require_relative "../../spec/support/keeping"
require_relative "../../spec/support/pdfs"
require "tmpdir"
require_relative "alone_pictures"
require_relative "class_pictures"
require_relative "kinds_pictures"
require_relative "past_pictures"
require_relative "room_pictures"

# Runs the program with the demo data and a practice class, and takes one picture of
# each main view.
class Screenshots
  FOLDER = File.expand_path("../screenshots", __dir__)
  ADDRESS = "http://roost.heronsgate.example"
  SHEET = <<~CSV
    Question;Kind;Option A;Option B;Option C;Right;Time;Points;Subtopics
    Who builds a nest on the water?;choice;Grebe;Owl;Robin;A;20;100;nests
    What holds a mud nest together?;choice;Straw;Feathers;Rain;A;30;50;nests, materials
    Why are many eggs speckled?;writing;;;;;;;eggs
    Which nest is the oldest?;choice;This one;That one;;C;;;
    How many eggs does a heron lay?;choice;=2+2;9;;A;20;;eggs
    ;choice;Reeds;Mud;;B;;;
    Draw the nest you would build;sketch;;;;;;;nests
  CSV

  def call
    Browser.register
    Capybara.run_server = false
    Capybara.default_max_wait_time = 8
    Roost::Store::Database.migrate
    Roost::Store::Database.connection.run("TRUNCATE #{Keeping::TABLES.join(", ")} RESTART IDENTITY CASCADE")
    @sign_in = Roost::Setup::Demo.new.call
    course_port = AlonePictures.free_port
    settings = { "ROOST_ENV" => "test", "ROOST_BASE_URL" => ADDRESS, "ROOST_COURSE_PAGE" => "http://127.0.0.1:#{course_port}" }
    Bench::Server.program(settings) do |server|
      Capybara.app_host = server.address
      working { prepare }
      ClassPictures.new(FOLDER, teacher, seat, @sign_in[:email]).call
      AlonePictures.new(FOLDER, teacher, seat, @sign_in[:email], course_port: course_port).call
      start
      run
      look_back
      KindsPictures.new(FOLDER, seat, screen, @sign_in[:email]).call
    end
  end

  private

  # With somebody to do the work in the background.
  def working
    worker = Bench::Server.worker({ "ROOST_ENV" => "test" })
    yield
  ensure
    worker.stop
  end

  def teacher = @teacher ||= Capybara::Session.new(:chromium, nil)
  def screen = @screen ||= Capybara::Session.new(:chromium, nil)

  # A phone of the teacher's.
  def remote
    @remote ||= Capybara::Session.new(:chromium_phone, nil).tap { |session| sign_in(session) }
  end

  def seat = @seat ||= Capybara::Session.new(:chromium_phone, nil)

  def take(session, name)
    sleep 0.7
    session.save_screenshot(File.join(FOLDER, "#{name}.png"))
  end

  def press(words) = teacher.click_button(words).then { sleep 0.7 }

  def prepare
    sign_in
    beside "today", "/today", "/lessons"
    open_lesson "Voices of the marsh"
    teacher.all(".thumb")[2].click
    take teacher, "builder-content"
    teacher.click_link "Preview"
    teacher.first(".jump a", text: "Which bird has this beak").click
    take teacher, "preview"
    bring_in
    open_lesson "Birds on the move"
    teacher.all(".thumb")[2].click
    take teacher, "builder"
  end

  def start
    open_lesson "Birds on the move"
    teacher.click_link "Start this lesson"
    teacher.select "Year 7 Kestrel", from: "Class"
    teacher.find("p", text: "on its list")
    teacher.choose "A name they type"
    press "Open the lobby"
    @session = teacher.current_path[/\d+/].to_i
  end

  def sign_in(session = teacher)
    session.visit "/sign-in"
    session.fill_in "Email", with: @sign_in[:email]
    session.fill_in "Password", with: @sign_in[:password]
    session.click_button "Sign in"
    session.find("h1", match: :first, text: "Today")
  end

  def open_lesson(title)
    teacher.visit "/lessons?#{URI.encode_www_form(q: title)}"
    teacher.first("h2 a", text: title).click
  end

  # A new lesson out of a PDF, a sheet, starters and the bank.
  def bring_in
    teacher.visit "/lessons"
    teacher.fill_in "Title of a new lesson", with: "Nests and who builds them"
    press "Create lesson"
    address = teacher.current_path
    from_pdf(address)
    from_sheet(address)
    beside "ready-made", "#{address}/starters", "#{address}/bank"
  end

  # Pages of the teacher in one picture.
  def beside(name, *paths)
    pictures = paths.map do |path|
      teacher.visit path
      Vips::Image.new_from_buffer(sleep(0.7).then { teacher.driver.browser.screenshot_as(:png) }, "").resize(0.6)
    end
    Vips::Image.arrayjoin(pictures, across: 2, shim: 8, background: [255]).write_to_file(File.join(FOLDER, "#{name}.png"))
  end

  def from_pdf(address)
    pages = ["Whose nest is this?", "Reeds, moss and mud", "A nest on the water", "Eggs and their colours"] * 5
    file("nests last year.pdf", Pdfs.make(pages)) do |path|
      teacher.visit "#{address}/add"
      teacher.attach_file "File", path
      teacher.first(:button, "Import").click
      teacher.find(".builder") # the browser reads the file while it sends it
    end
    teacher.find(".thumb-name", text: "Eggs and their colours", match: :first, wait: 20)
    teacher.find(".is-import", text: "is in: 20 slides.", wait: 40)
  end

  def from_sheet(address)
    file("questions on nests.csv", SHEET) do |path|
      teacher.visit "#{address}/add"
      teacher.attach_file "Spreadsheet", path
      press "Check before adding"
      take teacher, "sheet"
    end
  end

  def file(name, content)
    Dir.mktmpdir do |folder|
      path = File.join(folder, name)
      File.binwrite(path, content)
      yield path
    end
  end

  def run
    join
    press "Begin the lesson"
    teacher.find(".desk-live")
    @room = RoomPictures.new(FOLDER, teacher, screen, remote)
    @room.call
    2.times { press "Next slide →" }
    game
    teacher.find("#desk-menu summary").click
    teacher.accept_confirm { press "End the session" }
  end

  def join
    seat.visit "/"
    seat.fill_in "Code on the board, or your pass", with: teacher.find(".code.is-huge").text
    seat.click_button "Continue"
    seat.fill_in "Your name", with: "Cleo"
    seat.click_button "Join"
    teacher.fill_in "practice-count", with: "23"
    press "Add practice students"
    take teacher, "desk-lobby"
    screen.visit "/screen/#{Roost::Store::Sessions.new.find(@session).screen_key}"
  end

  def game
    seat.find("label", text: "Less food").click
    sleep 9
    teacher.click_button "Who gave A"
    take teacher, "desk-answers"
    take screen, "screen-question"
    take seat, "seat-answering"
    seat.click_button "Hand in"
    sleep 3
    ["Close answers", "Results up", "Show right answer"].each { |words| press words }
    take screen, "screen-results"
    @room.finish
    press "Next slide →"
    ["Grey heron", "Reed bunting", "Water rail"].each { |bird| seat.find("label", text: bird).click }
    seat.click_button "Hand in"
    sleep 20
    ["Close answers", "Standings up"].each { |words| press words }
    take screen, "screen-standings"
  end

  def look_back
    teacher.visit "/results/1"
    take teacher, "results-students"
    PastPictures.new(FOLDER, teacher, @sign_in[:email]).call
  end
end

Roost::Setup::Cluster.new(Roost.settings).use { Screenshots.new.call }

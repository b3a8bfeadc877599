# frozen_string_literal: true

require "roost"
require_relative "../bench/server"
require_relative "../spec/support/browser"
require_relative "../spec/support/builders"
require_relative "../spec/support/keeping"

# Runs the program with the demo data and a practice class, and takes one picture of
# each main view.
class Screenshots
  FOLDER = File.join(__dir__, "screenshots")
  ADDRESS = "http://roost.heronsgate.example"

  def call
    Browser.register
    Capybara.run_server = false
    Capybara.default_max_wait_time = 8
    Roost::Store::Database.migrate
    Roost::Store::Database.connection.run("TRUNCATE #{Keeping::TABLES.join(", ")} RESTART IDENTITY CASCADE")
    @sign_in = Roost::Operations::LoadDemo.new.call
    Bench::Server.program({ "ROOST_ENV" => "test", "ROOST_BASE_URL" => ADDRESS }) do |server|
      Capybara.app_host = server.address
      prepare
      run
      look_back
    end
  end

  private

  def teacher = @teacher ||= Capybara::Session.new(:chromium, nil)
  def screen = @screen ||= Capybara::Session.new(:chromium, nil)
  def seat = @seat ||= Capybara::Session.new(:chromium_phone, nil)

  def take(session, name)
    sleep 0.7
    session.save_screenshot(File.join(FOLDER, "#{name}.png"))
  end

  def press(words) = teacher.click_button(words).then { sleep 0.7 }

  def prepare
    teacher.visit "/sign-in"
    teacher.fill_in "Email", with: @sign_in[:email]
    teacher.fill_in "Password", with: @sign_in[:password]
    press "Sign in"
    take teacher, "lessons"
    teacher.first("h2 a", text: "Birds on the move").click
    teacher.all(".thumb")[2].click
    take teacher, "builder"
    teacher.click_link "Start this lesson"
    teacher.fill_in "Class", with: "Year 7 Kestrel"
    take teacher, "start"
    press "Open the lobby"
  end

  def run
    join
    press "Begin the lesson"
    2.times { press "Next slide →" }
    game
    press "Next slide →"
    sleep 9
    take teacher, "desk-writing"
    press "Next slide →"
    sketches
    teacher.accept_confirm { press "End" }
  end

  def join
    seat.visit "/"
    seat.fill_in "Code on the board", with: teacher.find(".code.is-huge").text
    seat.fill_in "Your name", with: "Cleo"
    take seat, "seat-join"
    seat.click_button "Join"
    teacher.fill_in "practice-count", with: "23"
    press "Bring it in"
    take teacher, "desk-lobby"
    screen.visit "/screen/#{Roost::Store::Sessions.new.find(2).screen_key}"
    take screen, "screen-lobby"
  end

  def game
    seat.find("label", text: "Less food").click
    sleep 9
    take teacher, "desk-answers"
    take screen, "screen-question"
    take seat, "seat-answering"
    seat.click_button "Hand in"
    sleep 3
    ["Close answers", "Put results on the class screen", "Show right answer"].each { |words| press words }
    take screen, "screen-results"
    press "Next slide →"
    ["Grey heron", "Reed bunting", "Water rail"].each { |bird| seat.find("label", text: bird).click }
    seat.click_button "Hand in"
    sleep 20
    ["Close answers", "Standings up"].each { |words| press words }
    take screen, "screen-standings"
    take seat, "seat-standings"
  end

  def sketches
    draw([-110, 10], [40, -70], [60, -10], [50, 40])
    draw([-60, -45], [-10, 60])
    draw([0, -60], [-5, 70])
    sleep 12
    take seat, "seat-sketching"
    take teacher, "desk-sketches"
    press "Put results on the class screen"
    take screen, "screen-sketches"
  end

  # A stroke with the mouse from a place on the sheet, relative to its middle.
  def draw(from, *steps)
    action = seat.driver.browser.action.move_to(seat.find(".sheet").native, *from).click_and_hold
    steps.each { |step| action = action.move_by(*step) }
    action.release.perform
  end

  def look_back
    teacher.visit "/results/1"
    take teacher, "results-students"
    teacher.click_link "Questions"
    take teacher, "results-questions"
    teacher.click_link "Students"
    teacher.click_link "Ines Duarte"
    take teacher, "results-student"
  end
end

Roost::Store::Cluster.new(Roost.settings).use { Screenshots.new.call }

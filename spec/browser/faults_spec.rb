# frozen_string_literal: true

require "net/http"
require_relative "../../bench/server"

# The program as it is run in earnest: its own process with two workers.
RSpec.describe "Faults in the middle of a lesson" do
  before(:all) do
    Classroom.server # the drivers
    @server = Bench::Server.new({ "ROOST_ENV" => "test" }, "-C", "config/puma.rb").start
    @host = @server.address
  end

  after(:all) { @server.stop }

  let!(:session) { kept_session(teacher) }
  let(:windows) do
    desk = sign_in_window.tap { |each| each.visit "/desk/#{session.id}" }
    [desk, seat_window(:ada, session, as: "Ada"), seat_window(:bo, session, as: "Bo")]
  end

  let(:enough) { 10 }

  # Ten devices that keep saving, each until it is acknowledged, as the real ones do: for so
  # many seconds, and on a slow machine for longer, so that each has more than enough.
  # @return [Hash{String=>Integer}] token to the number of the last acknowledged save
  def pump(tokens, seconds)
    clock = -> { Process.clock_gettime(Process::CLOCK_MONOTONIC) }
    ending = clock.call + seconds
    tokens.map do |token|
      Thread.new do
        number = 0
        while clock.call < ending || (number <= enough && clock.call < ending + 40)
          number += 1 if acknowledged?(token, number + 1)
          sleep 0.02
        end
        [token, number]
      end
    end.to_h(&:value)
  end

  def acknowledged?(token, number)
    body = JSON.generate(message("s4", { "text" => ["save #{number}"] }, final: false, save_no: number,
                                                                         save_id: uuid(token, number)))
    reply = Net::HTTP.post(URI("#{@host}/answers/#{token}"), body, "content-type" => "application/json")
    reply.is_a?(Net::HTTPOK)
  rescue SystemCallError, IOError, Timeout::Error
    false
  end

  def uuid(token, number)
    key = Digest::SHA256.hexdigest("#{token}#{number}")
    [key[0, 8], key[8, 4], key[12, 4], key[16, 4], key[20, 12]].join("-")
  end

  def expect_kept(acknowledged)
    acknowledged.each do |token, number|
      seat = Roost::Store::Seats.new.by_token(token)
      kept = Roost::Store::Answers.new.value(session.id, "s4", seat[:id])["text"]
      expect(kept.delete_prefix("save ").to_i).to be >= number
    end
    expect(acknowledged.values).to all(be > enough)
  end

  it "goes on within 5 s when a worker is killed, and loses no acknowledged answer" do
    windows
    command(session, "begin")
    command(session, "jump", slide: "s4")
    windows.drop(1).each { |seat| expect(seat).to have_css("input[name=text]") }
    tokens = Array.new(10) { |number| take_seat(session, "Student #{number}").last }
    pumping = Thread.new { pump(tokens, 8) }
    [0, 1].each do |turn|
      sleep 1
      Process.kill(:KILL, @server.workers[turn])
      command(session, turn.zero? ? "jump" : "back", slide: "s5")
      heading = turn.zero? ? "Sketch a wing" : "How do they know the way?"
      windows.each { |each| expect(each).to have_css("h1, h3", text: heading, wait: 5) }
    end
    windows[1].find_field("text", disabled: :all)
    expect_kept(pumping.value)
  end

  it "shows a page of ours, with what is still on the device, when a seat is reloaded without a line" do
    command(session, "begin")
    command(session, "jump", slide: "s4")
    seat = seat_window(:ada, session, as: "Ada")
    seat.find("input[name=text]")
    ready = "navigator.serviceWorker.ready.then(() => arguments[0](true))"
    expect(seat.evaluate_async_script(ready)).to be(true)
    seat.refresh
    seat.find("input[name=text]")
    @server.stop
    seat.find("input[name=text]").send_keys("By the stars")
    expect(seat).to have_css(".answer-state", text: "On this device")
    seat.refresh
    expect(seat).to have_css("h1", text: "No connection at the moment")
    expect(seat).to have_css("li", text: "By the stars")
    @server.start
    expect(seat).to have_field("text", with: "By the stars", wait: 20)
    expect(seat).to have_css(".answer-state", text: "✓ Saved")
  end

  it "goes on with an assignment that is reloaded without a line, and the server that comes back has what was written" do
    times = [-3600, 3600].map { |seconds| (Time.now.utc + seconds).strftime("%Y-%m-%dT%H:%M") }
    form = { "opens_at" => times[0], "closes_at" => times[1], "entry" => "free", "going_back" => "1" }
    row = Roost::Operations::AssignLesson.new.call(session.account_id, session.lesson_id, form).value
    _seat, token = take_seat(row, "Ada")
    phone = window(:alone)
    phone.visit "/seat/#{token}"
    phone.click_button "Begin"
    3.times { turn(phone, "Next →") }
    expect(phone.find_field("text")).to be_visible
    expect(phone.evaluate_async_script("navigator.serviceWorker.ready.then(() => arguments[0](true))")).to be(true)
    phone.refresh
    look = "caches.open('roost.sitting').then((store) => store.keys()).then((all) => arguments[0](all.length))"
    50.times { phone.evaluate_async_script(look) > 2 ? break : sleep(0.2) }
    @server.stop
    phone.refresh
    phone.find_field("text").send_keys("By the stars")
    expect(phone).to have_css(".answer-state", text: "On this device")
    @server.start
    50.times { Roost::Store::Answers.new.of(row.id).any? ? break : sleep(0.2) }
    expect(Roost::Store::Answers.new.of(row.id).map { |_, each| each.value }).to eq([{ "text" => "By the stars" }])
  end

  it "shows the present state within 15 s of a restarted database's return" do
    windows
    command(session, "begin")
    command(session, "jump", slide: "s4")
    windows[1].find("input[name=text]").send_keys("By the")
    tokens = Array.new(10) { |number| take_seat(session, "Student #{number}").last }
    pumping = Thread.new { pump(tokens, 10) }
    sleep 1
    Roost::Setup::Cluster.new(Roost.settings).restart
    Roost::Store::Database.disconnect
    windows[1].find("input[name=text]").send_keys(" stars")
    expect_kept(pumping.value)
    command(session, "next")
    windows.each { |each| expect(each).to have_css("h1, h3", text: "Sketch a wing", wait: 15) }
    expect(windows[0]).to have_css(".perch:not(.is-away)", text: "Ada", wait: 15)
    texts = database[:answers].where(slide_id: "s4").select_map(:value).map { |value| value["text"] }
    expect(texts).to include("By the stars")
  end
end

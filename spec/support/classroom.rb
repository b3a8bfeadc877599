# frozen_string_literal: true

require "capybara/rspec"
require "net/http"
require "set"

# A running Amber Roost with real windows: in an example each name is a Chromium of its own, so
# teacher, class screen and students never share a cookie.
module Classroom
  # What comes true after a while: on another device, or when a script has run.
  # @param seconds [Numeric] after which it should have
  def eventually(seconds = 12)
    deadline = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    sleep 0.1 until yield || Process.clock_gettime(Process::CLOCK_MONOTONIC) > deadline
    expect(yield).to be_truthy
  end

  include Access

  # Those of the example at hand, by name and driver, and those of earlier ones, by driver.
  USED = {} # rubocop:disable Style/MutableConstant
  FREE = Hash.new { |all, driver| all[driver] = [] }

  def self.included(group)
    group.after do
      # The next example has a line, and is not asked about what this one's pages complained of.
      @cut.to_a.each { |session| [offline(session, false), hold_up(session)] }
      USED.each_value { |session| session.driver.browser.logs.get(:browser) }
      USED.each { |(_, driver), session| FREE[driver] << session.tap(&:reset!) }
      USED.clear
    end
  end

  # The address of the running program; started when first asked for.
  def self.server
    @server ||= begin
      Browser.register
      Capybara.default_max_wait_time = 20 # a loaded machine stands still for ten at a time
      Capybara.default_retry_interval = 0.1 # each look costs the browser and its driver 10 ms
      Capybara.enable_aria_label = true
      Capybara.run_server = false
      Capybara.server = :puma, { Silent: true, Threads: "1:8", config_files: ["-"] }
      engine = Roost::Web::Application.engine.start
      at_exit { engine.stop }
      program = Roost::Web::Application.build(engine)
      axe = [200, { "content-type" => "text/javascript; charset=utf-8", "cache-control" => "max-age=3600" }, [AXE]]
      app = ->(env) { env["PATH_INFO"] == AXE_PATH ? axe : program.call(env) }
      Capybara::Server.new(app, host: "127.0.0.1").boot
    end
  end

  # @param driver [Symbol] one that Browser registers
  # @return [Capybara::Session]
  def window(name, driver = :chromium)
    Capybara.app_host = @host || "http://#{Classroom.server.host}:#{Classroom.server.port}"
    USED[[name, driver]] ||= FREE[driver].pop || Capybara::Session.new(driver, nil)
  end

  # A window of somebody signed in.
  # @param at [String, nil] address of the page in it
  def sign_in_window(name = :teacher, driver = :chromium, email: "falk@heronsgate.example", at: nil)
    window(name, driver).tap do |session|
      session.driver.browser.execute_cdp("Network.setCookie", name: "roost", value: signed_in(email), path: "/",
                                                              httpOnly: true, url: Capybara.app_host)
      session.visit(at) if at
    end
  end

  # Signs in as a browser does, but for the browser.
  # @return [String] the cookie that is given for it
  def signed_in(email)
    page = Net::HTTP.get_response(URI("#{Capybara.app_host}/sign-in"))
    form = { "authenticity_token" => page.body[/name="authenticity_token" value="([^"]+)"/, 1], "email" => email,
             "password" => "sallow marsh at dusk" }
    cookie = ->(reply) { reply.get_fields("set-cookie").filter_map { |each| each[/\Aroost=[^;]+/] }.first }
    reply = Net::HTTP.post(URI("#{Capybara.app_host}/sign-in"), URI.encode_www_form(form), "cookie" => cookie.call(page))
    cookie.call(reply).delete_prefix("roost=")
  end

  def join_window(name, code, as:, driver: :chromium)
    window(name, driver).tap do |session|
      session.visit "/"
      session.fill_in "Code on the board, or your pass", with: code
      session.click_button "Continue"
      session.fill_in "Your name", with: as
      session.click_button "Join"
      session.find(".seat-name", text: as)
    end
  end

  # The same, where how one comes in is not the matter.
  # @param session [Store::Sessions::Row]
  def seat_window(name, session, as:, driver: :chromium)
    window(name, driver).tap do |seat|
      seat.visit "/seat/#{take_seat(session, as).last}"
      seat.find(".seat-name", text: as)
    end
  end

  # Presses a button under a slide and waits for another slide.
  # @param words [String, Regexp]
  def turn(session, words)
    button = session.find("button", text: words) # there once the turn before has come
    before = session.find("h1").text
    button.click
    session.assert_no_selector("h1", exact_text: before)
  end

  def expect_accessible(session) = expect(violations(session)).to eq([])

  def offline(session, lost)
    cut(session)
    session.driver.browser.execute_cdp("Network.emulateNetworkConditions", offline: lost, latency: 0,
                                                                           downloadThroughput: -1, uploadThroughput: -1)
  end

  # What is sent to these addresses doesn't get there, until none are given.
  # @param patterns [Array<String>]
  def hold_up(session, *patterns)
    cut(session)
    session.driver.browser.execute_cdp("Network.setBlockedURLs", urls: patterns)
  end

  # What the browser complained of, apart from lines that were cut on purpose.
  def complaints(session)
    session.driver.browser.logs.get(:browser).map(&:message).grep_v(/net::ERR_|Failed to fetch|status of (?:422|503)/)
  end

  private

  def cut(session)
    (@cut ||= Set.new) << session
    session.driver.browser.execute_cdp("Network.enable")
  end
end

# frozen_string_literal: true

require "capybara"
require "selenium-webdriver"

# Headless Chromium with Debian's ChromeDriver, for the browser specs and the pictures.
module Browser
  FLAGS = %w[--headless --no-sandbox --disable-gpu --disable-quic --no-first-run --disable-background-networking
             --disable-component-update --disable-sync --force-device-scale-factor=1 --hide-scrollbars
             --renderer-process-limit=1 --disable-back-forward-cache].freeze
  DESK = [1280, 800].freeze
  PHONE = [390, 844].freeze

  # A microphone that hums, and nobody to ask whether it may be used.
  MICROPHONE = %w[--use-fake-device-for-media-stream --use-fake-ui-for-media-stream].freeze

  # Chromium without what draws windows: it does the same with half the work.
  HEADLESS = "/usr/lib/chromium/chromium-headless-shell"
  # For what only the whole of it knows.
  WHOLE = "/usr/bin/chromium"

  # @param size [Array(Integer, Integer)] of the page in CSS pixels
  # @return [Selenium::WebDriver::Options]
  def self.options(size = DESK, *flags)
    shown = ENV.key?("ROOST_VISIBLE") # a window to be looked at, where there is a screen
    args = [*(shown ? FLAGS - ["--headless"] : FLAGS), *flags, "--window-size=#{size.join(",")}"]
    Selenium::WebDriver::Chrome::Options.new(args: args).tap do |options|
      options.binary = shown ? WHOLE : HEADLESS
      # The window's own frame takes room, and a headless window is never narrower than
      # 500 px; so the page's size is emulated.
      options.add_emulation(device_metrics: { width: size[0], height: size[1], pixelRatio: 1, touch: size == PHONE })
      options.add_option("goog:loggingPrefs", { browser: "ALL" })
    end
  end

  def self.service = Selenium::WebDriver::Chrome::Service.new(path: "/usr/bin/chromedriver")

  def self.register
    { chromium: [DESK], chromium_phone: [PHONE], chromium_newcomer: [PHONE], chromium_recording: [DESK, *MICROPHONE],
      chromium_small: [[1024, 768]] }.each { |name, arguments| add(name, options(*arguments)) }
    add(:chromium_no_storage, options(PHONE).tap do |each|
      each.binary = WHOLE
      each.add_preference(:profile, NO_STORAGE)
    end)
  end

  # Neither cookies nor anything else a page might keep.
  NO_STORAGE = { default_content_setting_values: { cookies: 2 } }.freeze

  def self.add(name, options)
    Capybara.register_driver(name) do |app|
      Capybara::Selenium::Driver.new(app, browser: :chrome, options: options, service: service).tap do |driver|
        # What ChromeDriver says of an element that goes while it is looked at; Capybara then looks again.
        driver.invalid_element_errors << Selenium::WebDriver::Error::UnknownError
      end
    end
  end
  private_class_method :add
end

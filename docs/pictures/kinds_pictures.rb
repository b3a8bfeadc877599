# frozen_string_literal: true

require "vips"

# Takes every kind of question in the second demo lesson, at a phone and on the class screen,
# and puts them on one sheet each.
class KindsPictures
  # @param folder [String] where the sheets go
  # @param seat [Capybara::Session], screen [Capybara::Session]
  # @param email [String] of the demo teacher
  def initialize(folder, seat, screen, email)
    @folder = folder
    @seat = seat
    @screen = screen
    @account = Roost::Store::Accounts.new.id_of(email)
  end

  def call
    session = start_second
    slides = Roost::Store::Sessions.new.lesson(session.id).class_slides.select(&:prompt).uniq { |slide| slide.prompt.kind }
    pictures = slides.map { |slide| kind(session, slide) }
    { "kinds-seat" => 0, "kinds-screen" => 1 }.each do |name, place|
      sheet = pictures.map { |both| Vips::Image.new_from_buffer(both[place], "").resize(0.5) }
      joined = Vips::Image.arrayjoin(sheet, across: place.zero? ? 5 : 3, shim: 8, background: [255])
      joined.write_to_file(File.join(@folder, "#{name}.png"))
    end
  end

  private

  attr_reader :seat, :screen

  def start_second
    id = Roost::Store::Catalogue.new.find(@account, query: "Voices").first.id
    session = Roost::Operations::StartSession.new.call(@account, id, { "opens_itself" => "1", "may_change" => "1" }).value
    seat.visit "/join/#{session.code}"
    seat.fill_in "Your name", with: "Cleo"
    seat.click_button "Join"
    Roost::Operations::PracticeClass.new.invite(@account, session.id, 23)
    command(session, "begin")
    screen.visit "/screen/#{session.screen_key}"
    session
  end

  def command(session, name, **arguments)
    Roost::Operations::CommandSession.new.call(@account, session.id, name, arguments.transform_keys(&:to_s))
  end

  # @return [Array(String, String)] a phone's picture and the class screen's, as PNG
  def kind(session, slide)
    command(session, "jump", slide: slide.id)
    seat.find("#slide-#{slide.id}")
    phone = sleep(1).then { seat.driver.browser.screenshot_as(:png) }
    sleep 13
    let_through(session, slide)
    command(session, "close")
    %w[results key].each { |what| command(session, "show", what: what) }
    sleep 1.5
    [phone, screen.driver.browser.screenshot_as(:png)]
  end

  # Cards wait for the teacher.
  def let_through(session, slide)
    return unless slide.prompt.board?

    tally = Roost::Store::Moments.new.of(Roost::Store::Sessions.new.find(session.id)).tally(slide.id)
    keys = tally.waiting.map(&:key)
    command(session, "curate", slide: slide.id, what: "approve", cards: keys.join("\n"))
    keys.each_slice(9).with_index do |some, column|
      command(session, "curate", slide: slide.id, what: "column", cards: some.join("\n"), column: column)
    end
  end
end

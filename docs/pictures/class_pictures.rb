# frozen_string_literal: true

require "tempfile"
require_relative "picture_sheet"

# Takes what has to do with a class of the demo data, and puts it on one sheet: its list, a list looked
# through, starting a lesson for it, picking one's name, the lobby that says who is missing, the passes.
class ClassPictures
  include PictureSheet

  NAME = "Year 7 Kestrel"

  # @param folder [String] where the sheet goes
  # @param teacher [Capybara::Session], seat [Capybara::Session]
  # @param email [String] of the demo teacher
  def initialize(folder, teacher, seat, email)
    @folder = folder
    @teacher = teacher
    @seat = seat
    @account = Roost::Store::Accounts.new.id_of(email)
  end

  def call
    write_sheet([*lists, *lobby, passes].each_slice(3).to_a, File.join(@folder, "classes.png"))
  end

  private

  attr_reader :teacher, :seat

  # @return [Array<String>] PNG of the class, and of a list looked through
  def lists
    teacher.visit "/classes"
    teacher.click_link NAME
    list = shot(teacher)
    teacher.click_link "Add students"
    teacher.fill_in "One student a line", with: "Ada Lindqvist\nMarsh, Otto\n17\nZeb Winslow\nCleo Okafor\t7K-03"
    teacher.click_button "Check before adding"
    [list, shot(teacher)]
  end

  # @return [Array<String>] PNG of starting, of picking a name, and of the lobby
  def lobby
    start = starting
    teacher.click_button "Open the lobby"
    code = teacher.find(".code.is-huge").text.delete(" ")
    picking, *others = klass_people.first(17).rotate(2)
    others.each { |each| come(code, each) }
    pick = pick(code, picking)
    teacher.find(".perch", text: picking.shown_name)
    waiting = shot(teacher)
    end_session
    [start, pick, waiting]
  end

  def end_session
    teacher.find("#desk-menu summary").click
    teacher.accept_confirm { teacher.click_button "End the session" }
  end

  def starting
    id = Roost::Store::Catalogue.new.find(@account, query: "Beaks").first.id
    teacher.visit "/lessons/#{id}/start"
    teacher.select NAME, from: "Class"
    teacher.choose "Their name, picked from the class list"
    shot(teacher)
  end

  def pick(code, person)
    seat.visit "/join/#{code}"
    seat.choose person.shown_name
    shot(seat).tap { seat.click_button "Join" }
  end

  def klass = @klass ||= Roost::Store::Classes.new.all(@account).find { |each| each.name == NAME }

  def klass_people = Roost::Store::Students.new.of_class(klass.id)

  def come(code, person)
    token = Roost::Operations::JoinSession.new.call(code, nil, student_id: person.id).value
    seats = Roost::Store::Seats.new
    seats.looked(seats.by_token(token)[:id])
  end

  # @return [String] PNG of the first page
  def passes
    Tempfile.create(["passes", ".pdf"], binmode: true) do |file|
      passes = Roost::Operations::StudentPasses.new.of_class(@account, klass.id).first(8)
      cards = Roost::Exchange::PassCards.cards(passes, base_url: Screenshots::ADDRESS)
      file.write(Roost::Exchange::PassCards.pdf(cards, class_name: NAME, base_url: Screenshots::ADDRESS))
      file.flush
      `pdftoppm -r 90 -f 1 -l 1 -png #{file.path}`
    end
  end
end

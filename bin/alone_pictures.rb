# frozen_string_literal: true

require_relative "picture_sheet"

# Takes what students do at their own speed, and puts it on one sheet: a quiz at the Desk, on a phone and looked back on;
# assigning, who is how far, catching up, what to bring back; a student's page and own copy.
class AlonePictures
  include PictureSheet

  LESSON = "Voices of the marsh"
  CLASS_NAME = "Year 7 Kestrel"
  BEFORE = 6 # slides

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
    write_sheet([[*quiz, student], [assigning, *catching_up]], File.join(@folder, "alone.png"))
  end

  private

  attr_reader :teacher, :seat

  # @return [Array<String>] PNG of the Desk, of a slide on a phone, and of looking back
  def quiz
    begin_quiz
    seat.find("h1", text: "Which bird has this beak?")
    working = shot(seat)
    4.times { seat.click_button("Next →").then { sleep 0.5 } }
    seat.find(".sitting-steps summary").click
    back = shot(seat)
    sleep 30 # so long the practice class is at work
    [shot(teacher), working, back].tap { end_session }
  end

  def begin_quiz
    teacher.visit "/lessons/#{lesson_id}/start"
    teacher.click_button "Open the lobby"
    code = teacher.find(".code.is-huge").text
    teacher.fill_in "practice-count", with: "19"
    teacher.click_button "Bring it in"
    seat.visit "/join/#{code.delete(" ")}"
    seat.fill_in "Your name", with: "Cleo"
    seat.click_button "Join"
    teacher.click_button "Begin the lesson"
    BEFORE.times { teacher.click_button("Next slide →").then { sleep 1.1 } }
    teacher.find(".quiz-grid")
  end

  def lesson_id = Roost::Store::Catalogue.new.find(@account, query: LESSON).first.id

  def end_session
    teacher.find("#desk-menu summary").click
    teacher.accept_confirm { teacher.click_button "End the session" }
  end

  # @return [String] PNG of a student's page
  def student
    klass = Roost::Store::Classes.new.all(@account).find { |each| each.name == CLASS_NAME }
    _person, pass = Roost::Operations::StudentPasses.new.of_class(@account, klass.id)[12]
    seat.visit "/pass/#{pass}"
    shot(seat)
  end

  # @return [String] PNG
  def assigning
    teacher.visit "/assignments/new?lesson=#{lesson_id}"
    shot(teacher)
  end

  # @return [Array<String>] PNG of who is how far, of what to bring back, and of an own copy
  def catching_up
    teacher.visit "/assignments"
    teacher.click_link "At home: What did you hear"
    following = shot(teacher)
    teacher.visit "/classes"
    teacher.click_link CLASS_NAME
    teacher.click_link "Bring back"
    bring = shot(teacher)
    seat.click_link "Your copy", match: :first
    seat.execute_script("scrollTo(0, 1400)")
    [following, bring, shot(seat)]
  end
end

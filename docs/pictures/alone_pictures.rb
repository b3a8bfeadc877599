# frozen_string_literal: true

require "net/http"
require "open3"
require "socket"
require "tmpdir"
require_relative "picture_sheet"

# Takes what students do at their own speed, and puts it on one sheet: a quiz at the Desk, on a phone and looked back on, a
# student's page; assigning, who is how far, what to bring back; the page of a course, catching up, an own copy as PDF.
class AlonePictures
  include PictureSheet

  LESSON = "Voices of the marsh"
  CLASS_NAME = "Year 7 Kestrel"
  BEFORE = 6 # slides

  # A port for the page of a course.
  # @return [Integer]
  def self.free_port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }

  # @param folder [String] where the sheet goes
  # @param teacher [Capybara::Session], seat [Capybara::Session]
  # @param email [String] of the demo teacher
  # @param course_port [Integer] to which the program posts
  def initialize(folder, teacher, seat, email, course_port:)
    @folder = folder
    @teacher = teacher
    @seat = seat
    @account = Roost::Store::Accounts.new.id_of(email)
    @course_port = course_port
  end

  def call
    write_sheet([[*quiz, student], [assigning, following, bringing_back], [course_page, catching_up, copy]],
                File.join(@folder, "alone.png"))
  end

  private

  attr_reader :teacher, :seat

  # @return [Array<String>] PNG of the Desk, of a slide on a phone, and of looking back
  def quiz
    begin_quiz
    seat.find("h1", text: "Which bird has this beak?")
    working = shot(seat)
    4.times { seat.click_button("Next →").then { sleep 0.5 } }
    2.times { seat.click_button("Next →").then { sleep 0.5 } }
    seat.click_button "Check answers"
    seat.find("h1", text: "Check your answers")
    back = shot(seat)
    sleep 30 # so long the practice class is at work
    [shot(teacher), working, back].tap { end_session }
  end

  def begin_quiz
    teacher.visit "/lessons/#{lesson_id}/start"
    teacher.select "None", from: "Class"
    teacher.has_no_text?("on its list")
    teacher.click_button "Open the lobby"
    code = teacher.find(".code.is-huge").text
    teacher.fill_in "practice-count", with: "19"
    teacher.click_button "Add practice students"
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

  # @return [String] PNG of who is how far
  def following
    teacher.visit "/assignments"
    teacher.click_link "At home: What did you hear"
    @link = teacher.find("#link").value
    shot(teacher)
  end

  # @return [String] PNG
  def bringing_back
    teacher.visit "/classes"
    teacher.click_link CLASS_NAME
    teacher.click_link "Questions to revisit"
    shot(teacher)
  end

  # @return [String] PNG of the page of a course, to which the assignment was posted, and into which its link is pasted
  def course_page
    with_course_page do |address|
      teacher.visit "/assignments"
      teacher.click_link "At home: What did you hear"
      teacher.click_button "Post to the course page"
      teacher.find(".note", text: "Posted to the course page.")
      teacher.visit "#{address}/?#{URI.encode_www_form(paste: "#{Capybara.app_host}#{URI(@link).path}")}"
      # The made-up host of these pictures can't be reached.
      teacher.execute_script("for (const each of document.images) each.src = each.src.replace(/^.*?:[/][/][^/]+/, arguments[0])",
                             Capybara.app_host)
      shot(teacher)
    end
  end

  def with_course_page
    address = "http://127.0.0.1:#{@course_port}"
    Dir.mktmpdir do |folder|
      program = %w[bundle exec ruby standins/coursepage/serve.rb]
      serving = spawn({ "ROOST_VAR" => folder }, *program, "--port", @course_port.to_s,
                      "--url", Capybara.app_host, chdir: Roost::Settings::ROOT, out: File::NULL)
      100.times { break if answers? || sleep(0.1).nil? }
      yield address
    ensure
      Process.kill(:TERM, serving)
      Process.wait(serving)
    end
  end

  def answers?
    TCPSocket.open("127.0.0.1", @course_port).close
    true
  rescue Errno::ECONNREFUSED
    false
  end

  # @return [String] PNG
  def catching_up
    rows = Roost::Store::PastSessions.new.all_of(@account).select(&:class_id)
    row = rows.find { |each| Roost::Operations::GiveCatchUp.missed(each).any? }
    teacher.visit "/assignments/catch-up?session=#{row.id}"
    shot(teacher)
  end

  # @return [String] PNG of the second page of a PDF, with questions on it
  def copy
    seat.all(:link, "Your copy", minimum: 1).last.click
    pdf = Net::HTTP.get(URI("#{Capybara.app_host}#{URI(seat.find("a[href$='.pdf']")["href"]).path}"))
    Open3.capture2("pdftoppm", "-png", "-r", "96", "-f", "2", "-l", "2", stdin_data: pdf, binmode: true).first
  end
end

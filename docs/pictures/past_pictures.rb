# frozen_string_literal: true

require "open3"
require_relative "picture_sheet"

# Takes what looks back, and puts it on one sheet: what happened, a flagged question, the lesson as it went; marking by a rubric,
# two who mark, the gradebook with one grade explained; who has what, a class over time, a printed page.
class PastPictures
  include PictureSheet

  CLASS_NAME = "Year 7 Kestrel"

  # @param folder [String] where the sheet goes
  # @param teacher [Capybara::Session]
  # @param email [String] of the demo teacher
  def initialize(folder, teacher, email)
    @folder = folder
    @teacher = teacher
    @account = Roost::Store::Accounts.new.id_of(email)
  end

  def call
    write_sheet([[at("/results/#{flagged}"), questions, at("/results/#{flagged}/timeline")],
                 [marking, compared, grades], [at("/classes/#{klass}/standards"), at("/classes/#{klass}/over-time"), printed]],
                File.join(@folder, "looking-back.png"))
  end

  private

  attr_reader :teacher

  # The session with a wrong key.
  def flagged
    @flagged ||= begin
      all = Roost::Store::PastSessions.new.all_of(@account)
      all.find { |row| row.title == "Birds on the move" && row.class_name == "Year 8 Avocet" }.id
    end
  end

  def klass = Roost::Store::Classes.new.all(@account).find { |each| each.name == CLASS_NAME }.id

  def at(path)
    teacher.visit path
    shot(teacher)
  end

  def questions
    teacher.visit "/results/#{flagged}/questions"
    flag = teacher.find(".is-flag", text: "Check the key", match: :first)
    teacher.execute_script("arguments[0].scrollIntoView({ block: 'center' })", flag)
    shot(teacher)
  end

  def marking
    teacher.visit "/results/#{flagged}/questions"
    teacher.find("section.question", text: "How do young birds know the way?").find_link(text: /mark/i, match: :first).click
    teacher.find("summary", text: "Stamp or comment", match: :first).click
    shot(teacher)
  end

  def compared
    teacher.click_link "Compare"
    teacher.find("summary", text: "Why", match: :first).click
    shot(teacher)
  end

  def grades
    teacher.visit "/classes/#{klass}/grades?as=grade"
    teacher.find("tbody summary", match: :first).click
    shot(teacher)
  end

  # Students by questions, as the PDF has it.
  def printed
    row = Roost::Store::Sessions.new.find(flagged)
    pdf = Roost::Operations::SessionPaper.new.file(row)
    Open3.capture2("pdftoppm", "-png", "-r", "96", "-f", "2", "-l", "2", stdin_data: pdf, binmode: true).first
  end
end

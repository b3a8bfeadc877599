# frozen_string_literal: true

require_relative "picture_sheet"

# Takes what a teacher does in the room besides asking: who talks with whom, the pen over a slide, and the Desk on a
# phone, on one sheet.
class RoomPictures
  include PictureSheet

  VIEWS = ["Answers", "Class screen", "Students", "Run sheet"].freeze

  # @param folder [String] where the sheet goes
  # @param teacher [Capybara::Session] at the Desk of a lesson that has begun, on a slide that asks nothing
  # @param screen [Capybara::Session] its class screen
  # @param remote [Capybara::Session] a phone of the teacher's
  def initialize(folder, teacher, screen, remote)
    @folder = folder
    @teacher = teacher
    @screen = screen
    @remote = remote
  end

  def call
    @pictures = [pairs, pen]
  end

  # With answers that have come in.
  def finish
    @remote.visit @teacher.current_url
    views = VIEWS.map do |name|
      @remote.click_button name
      shot(@remote)
    end
    write_sheet([@pictures, views], File.join(@folder, "room.png"))
  end

  private

  def press(words) = @teacher.click_button(words).then { sleep 0.7 }

  def pairs
    press "Talk time"
    @teacher.find(".lengths", text: "Talk with your neighbour").click_button("2 min")
    @teacher.execute_script("document.querySelector('#desk-talk').showModal()")
    press "In pairs"
    shot(@screen).tap { ["Pairs down", "End talk time"].each { |words| press words } }
  end

  def pen
    press "Pen"
    sheet = @teacher.find("ink-sheet[data-pen=true] svg.ink").native
    [[[-222, -78], [50, -8], [45, 6], [8, 14], [-50, 10], [-55, -4], [2, -18]],
     [[60, 62], [30, -14], [40, -6], [40, 4]]].each do |from, *steps|
      drawing = @teacher.driver.browser.action.move_to(sheet, *from).click_and_hold
      steps.each { |step| drawing = drawing.move_by(*step) }
      drawing.release.perform
    end
    shot(@screen).tap { press "Pen away" }
  end
end

# frozen_string_literal: true

# How many presses the paths take that a teacher goes all the time.
RSpec.describe "What a teacher does all the time" do
  let(:account) { teacher }
  let(:kestrel) { klass("Year 7 Kestrel", "Ada Lindqvist\nBo Marsh") }
  let(:presses) { [] }

  def klass(name, list)
    Roost::Operations::KeepClass.new.create(account, { "name" => name }).value.tap do |id|
      Roost::Operations::FillClass.new.fill(account, id, Roost::Core::ClassList.paste(list).value)
    end
  end

  def press(element) = element.click.tap { presses << element }

  it "takes three presses to start a lesson with the class" do
    kept_lesson(account)
    kestrel
    today = sign_in_window(at: "/today")
    expect(today).to have_css("h2", text: "Start a lesson with Year 7 Kestrel")
    press(today.find_link("Start Birds on the move"))
    press(today.find_button("Open the lobby"))
    press(today.find_button("Begin the lesson"))
    expect(today).to have_button("Ask now")
    expect([database[:sessions].get(:class_id), presses.length]).to eq([kestrel, 3])
  end

  it "takes two presses to ask a question nobody planned, and one to see who gave B" do
    session = kept_session(account)
    ada = take_seat(session, "Ada").first
    command(session, "begin")
    desk = sign_in_window(at: "/desk/#{session.id}")
    press(desk.find_button("Ask now"))
    press(desk.find_button("A to D"))
    50.times { moment(session).state.open? ? break : sleep(0.1) }
    expect(moment(session).state).to be_open
    expect(presses.length).to eq(2)
    slide = moment(session).slide
    save(session, ada, slide.id, { "options" => [slide.prompt.options[1].id] })
    press(desk.find_button("Who gave B"))
    expect(desk.find("#desk-lit")).to have_text("Ada")
    expect(presses.length).to eq(3)
  end

  it "takes two presses to assign a lesson for a week to the class" do
    kestrel
    builder = sign_in_window(at: "/lessons/#{kept_lesson(account)}")
    press(builder.find_link("Assign"))
    press(builder.find_button("Assign"))
    expect(builder).to have_css("h1", text: "Birds on the move")
    given = database[:assignments].join(:sessions, id: :session_id).first
    expect([given[:class_id], presses.length]).to eq([kestrel, 2])
    expect(given[:closes_at] - given[:opens_at]).to eq((4 * 86_400) + (10 * 3600)) # from Monday at eight to Friday at six
  end

  it "takes two presses from the class to what a student gave" do
    session = kept_session(account)
    ada = Roost::Store::Students.new.of_class(kestrel).first
    seat = take_seat(session, "Ada").first
    Roost::Store::Seats.new.belong(seat[:id], student_id: ada.id, team_id: nil)
    command(session, "begin")
    command(session, "jump", slide: "s3")
    save(session, seat, "s3", { "options" => ["o2"] })
    command(session, "end")
    klass = sign_in_window(at: "/classes/#{kestrel}")
    press(klass.find_link("Ada Lindqvist"))
    press(klass.find_link("Birds on the move"))
    expect(klass).to have_text("fully right")
    expect([klass.current_path, presses.length]).to eq(["/results/#{session.id}/students/#{seat[:id]}", 2])
  end
end

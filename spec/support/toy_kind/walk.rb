# frozen_string_literal: true

# Run in a copy of the program beside whose kinds the toy's folders were put (spec/kinds_alone_spec.rb).
RSpec.describe "The toy kind" do
  include Keeping
  include Classroom

  let(:account) { teacher }

  it "is built, previewed, asked, answered, shown, marked and commanded" do
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: "Dials", slides: [slide("s1", heading: "How far?")]))
    desk = sign_in_window
    desk.visit "/lessons/#{lesson}"
    desk.click_button "Toy"
    desk.fill_in "Where the dial has to stand", with: "7"
    desk.find_field("Where the dial has to stand").send_keys(:tab)
    key = -> { Roost::Store::Lessons.new.look(account, lesson).lesson.slides.first.prompt.settings["key"] }
    sleep 0.1 until key.call == 7
    desk.visit "/lessons/#{lesson}/preview/seat?slide=s1"
    expect(desk).to have_css("toy-dial[data-awake][data-most='9']")

    session = Roost::Operations::StartSession.new.call(account, lesson, Roost::Core::Session::Options.form).value
    command(session, "begin")
    desk.visit "/desk/#{session.id}"
    screen = window(:screen).tap { |each| each.visit "/screen/#{session.screen_key}" }
    expect(screen).to have_css(".toy-result", visible: :all) # empty yet
    seat = seat_window(:ada, session, as: "Ada")
    expect(seat).to have_css("toy-dial[data-most='9']")
    seat.fill_in "The dial", with: "7"
    seat.click_button "Hand in"
    expect(desk).to have_css(".toy-result li", text: "turn 7: 1")
    expect(seat).to have_css(".toy-result li", text: "turn 7: 1", wait: 6) # live on a board

    desk.click_button "Close answers"
    desk.click_button "Results up" if desk.has_button?("Results up", wait: 1)
    desk.click_button "As a dial"
    expect(screen).to have_css(".toy-result.is-dial", style: { "letter-spacing" => "7px" })
    desk.click_button "Double the dial"
    expect(screen).to have_css(".toy-result li", text: "turn 7: 2")
    command(session, "end")
    desk.visit "/results/#{session.id}/students/#{Roost::Store::Seats.new.of(session.id).first.id}"
    expect(desk).to have_css(".toy-review", text: "turned to 7 of 9")
    desk.visit "/results/#{session.id}/questions"
    expect(desk).to have_css(".toy-result li", text: "turn 7: 2")
    expect(Roost::Core::Analysis::Results.new(moment(session).record).lines.first.share).to eq(1)
  end

  it "goes into a sheet and back, and a practice class answers it" do
    toy = Roost::Core::Kinds.named("toy_dial").new(id: "p1", settings: { "key" => 3 })
    sheet = Roost::Exchange::QuestionSheet.new(->(_file) { true })
    csv = sheet.csv([slide("s1", prompt: toy)])
    read = Tempfile.create(["toy", ".csv"]) do |file|
      sheet.read(file.tap do |io|
                   io.write(csv) && io.flush
                 end.path, mark: "x").value
    end
    expect(read.usable.first.prompt.settings["key"]).to eq(3)

    session = kept_session(account, Roost::Core::Lesson.new(title: "Dials", slides: [slide("s1", prompt: toy)]))
    command(session, "begin")
    Roost::Operations::PracticeClass.new.invite(account, session.id, 4)
    put_back(session, 500, :opened_at)
    Roost::Operations::PracticeClass.new.carry_on(session.id)
    expect(moment(session).tally.answered).to be_positive
  end
end

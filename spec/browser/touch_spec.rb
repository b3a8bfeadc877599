# frozen_string_literal: true

# What is touched on a phone is as large as a fingertip.
RSpec.describe "Targets on a phone" do
  include Tour

  before { demo }

  # What takes a touch, is seen and is smaller; words within a sentence are left out. A radio button is as large as its label.
  let(:small) do
    <<~JS
      [...document.querySelectorAll("button, a[href], summary, select, textarea, input:not([type=hidden]), [role=button]")]
        .filter((each) => each.checkVisibility({ visibilityProperty: true }))
        .filter((each) => !each.matches("p a, li a, td a, th a, dd a, .sr-only, .sr-only *, .skip"))
        .map((each) => {
          const whole = each.matches("[type=radio], [type=checkbox], [type=file]") && each.closest("label");
          return [each, (whole || each).getBoundingClientRect()];
        })
        .filter(([, { width, height }]) => width > 0 && height > 0 && (height < 43.5 || width < 43.5))
        .map(([each, { width, height }]) => [each.localName, each.className, Math.round(width), Math.round(height),
          (each.ariaLabel ?? each.textContent ?? each.name).trim().slice(0, 30)].join(" "))
    JS
  end
  let(:found) { Hash.new { |all, what| all[what] = [] } }

  def started
    lesson = Roost::Store::Lessons.new.create(falk, everything)
    Roost::Operations::StartSession.new.call(falk, lesson, Tour::OPTIONS).value
  end

  def look(name, phone) = phone.evaluate_script(small).each { |what| found[what] << name }

  it "are 44 pixels large on every page of a student" do
    phone = window(:seat, :chromium_phone)
    %w[/ /nowhere /seat/offline].each do |path|
      phone.visit path
      look(path, phone)
    end
    kestrel = Roost::Store::Classes.new.all(falk).first.id
    Roost::Core::Session::Options::ENTRIES.each_key do |entry|
      form = { "entry" => entry, "class_id" => kestrel.to_s, "extra" => "Table", "teams" => "chosen" }
      asking = Roost::Operations::StartSession.new.call(falk, lesson_id("Voices of the marsh"), form).value
      phone.visit "/join/#{asking.code}"
      look("enter #{entry}", phone)
    end
    phone.visit "/pass/#{Roost::Operations::StudentPasses.new.of_class(falk, kestrel).first.last}"
    look("own page", phone)
    session = started
    phone.visit "/seat/#{take_seat(session, "Ada").last}"
    command(session, "begin")
    Roost::Store::Sessions.new.lesson(session.id).class_slides.each do |slide|
      command(session, "jump", slide: slide.id)
      phone.find("h1", text: slide.heading.delete("*$"), visible: :all)
      look("#{slide.prompt&.kind} #{slide.id}", phone)
    end
    expect(found).to eq({})
  end

  # A quiz that two are at.
  def quiz
    slides = [slide("q1", heading: "Q1", prompt: choice(keys: %w[o1])), slide("q2", heading: "Q2", prompt: writing(size: "line"))]
    lesson = Roost::Core::Lesson.new(title: "Quiz", slides: slides, sections: [section("quiz", "quiz", %w[q1 q2])])
    session = kept_session(falk, lesson)
    phone = seat_window(:quiz, session, as: "Ada", driver: :chromium_phone)
    command(session, "begin")
    command(session, "open")
    desk = sign_in_window(:grid, :chromium_phone, at: "/desk/#{session.id}")
    phone.find("h1", text: "Q1")
    look("quiz: seat", phone)
    turn(phone, /Next/)
    turn(phone, /Check answers/)
    look("quiz: look back", phone)
    desk.find(".quiz-grid th button", text: "Ada")
    look("quiz: grid", desk)
  end

  it "are 44 pixels large at the Desk in a teacher's hand" do
    session = started
    take_seat(session, "Ada")
    desk = sign_in_window(:remote, :chromium_phone, at: "/desk/#{session.id}")
    look("lobby", desk)
    command(session, "begin")
    slide = Roost::Store::Sessions.new.lesson(session.id).prompts.first
    command(session, "jump", slide: slide.id)
    desk.find(".desk-views")
    ["Students", "Run sheet", "Class screen", "Answers"].each do |name|
      desk.click_button name
      look(name, desk)
    end
    desk.click_button "More"
    look("drawer", desk)
    desk.find("#desk-menu summary").click
    look("menu", desk)
    quiz
    expect(found).to eq({})
  end
end

# frozen_string_literal: true

# Every state of the program, as somebody meets it who hears the page, works by keyboard or has a
# narrow window.
RSpec.describe "For everybody" do
  include Tour

  before { demo }

  let(:found) { Hash.new { |all, what| all[what] = [] } }
  let(:voices) { lesson_id("Voices of the marsh") }

  # Slides of the builder, with each kind of question and each arrangement.
  def builder(session)
    ids = Roost::Store::Lessons.new.find(falk, voices).lesson.slides.map(&:id)
    ids.each do |id|
      session.visit "/lessons/#{voices}?slide=#{id}"
      session.find(".thumb[aria-current]")
      # What is scrolled half out of sight is no target.
      session.execute_script("document.querySelector('.slides').scrollTop = 0")
      yield "builder #{id}", session
    end
  end

  def doors(session)
    %w[/ /sign-in /sign-up /forgotten /nowhere /seat/offline].each do |path|
      session.visit path
      session.find("h1")
      yield path, session
    end
    entries(session) { |*what| yield(*what) }
  end

  # What a session asks of those who come, in each way it may, and a student's own page.
  def entries(session)
    kestrel = Roost::Store::Classes.new.all(falk).first.id
    Roost::Core::Session::Options::ENTRIES.each_key do |entry|
      form = { "entry" => entry, "class_id" => kestrel.to_s, "extra" => "Table" }
      started = Roost::Operations::StartSession.new.call(falk, voices, form).value
      session.visit "/join/#{started.code}"
      session.find("h1")
      yield "enter: #{entry}", session
    end
    session.visit "/pass/#{Roost::Operations::StudentPasses.new.of_class(falk, kestrel).first.last}"
    session.find(".own-session", match: :first)
    yield "own page", session
  end

  # What opens at the Desk and in the builder.
  def dialogs(session)
    session.visit "/lessons/#{voices}?slide=s8"
    session.find("#chosen-more summary").click
    session.execute_script("document.querySelector('.slides').scrollTop = 0")
    yield "builder: more", session
    live = kept_session(falk, everything)
    command(live, "begin")
    session.visit "/desk/#{live.id}"
    session.find("#desk-menu summary").click
    yield "desk: menu", session
    ["Keys", "Ask now"].each do |name|
      session.find(:button, name, match: :first).click
      session.find("dialog[open]")
      yield "desk: #{name}", session
      session.find("dialog[open]").click_button("Close")
    end
    command(live, "jump", slide: everything.prompts.find { |each| each.prompt.keyed? }.id)
    session.click_button "Fix the answer key…"
    session.find("dialog[open] form.key-form")
    yield "desk: correct it", session
  end

  it "has nothing that axe complains of, in any state, and never scrolls sideways at 320 pixels" do
    states = 0
    look = lambda do |name, session|
      states += 1
      violations(session).each { |what| found[what] << name }
      next if name.start_with?("screen")

      wider = too_wide(session)
      found["#{wider} px"] << name if wider.positive?
    end
    desk = sign_in_window
    %i[teacher_pages builder dialogs].each { |pages| send(pages, desk, &look) }
    doors(window(:door), &look)
    live(desk, window(:screen), window(:seat, :chromium_phone), &look)
    expect(found).to eq({})
    expect(states).to be >= 167
  end

  it "shows what has focus, wherever one comes with the Tab key" do
    seen = 0
    look = lambda do |name, session|
      faults, count = without_focus(session)
      seen += count
      faults.each { |what| found[what] << name }
    end
    desk = sign_in_window
    %W[/lessons /lessons/#{voices}?slide=s8 /lessons/#{voices}/start /lessons/#{voices}/preview?slide=s8 /bank /results /account]
      .each { |path| desk.visit(path) || look.call(path, desk) }
    doors(window(:door)) { |name, session| look.call(name, session) if %w[/ /sign-in].include?(name) }
    session = kept_session(falk, everything)
    seat = window(:seat, :chromium_phone)
    seat.visit "/seat/#{take_seat(session, "Ada").last}"
    command(session, "begin")
    Roost::Store::Sessions.new.lesson(session.id).prompts.uniq { |each| each.prompt.kind }.each do |slide|
      command(session, "jump", slide: slide.id)
      seat.find("h1", text: slide.heading.delete("*$"))
      look.call("seat #{slide.prompt.kind}", seat)
    end
    desk.visit "/desk/#{session.id}"
    desk.find(".desk-commands")
    look.call("desk", desk)
    expect(found).to eq({})
    expect(seen).to be > 150
  end
end

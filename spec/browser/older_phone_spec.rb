# frozen_string_literal: true

# A phone of 2020: Chromium without what it lacks. What its styles lack, the linters keep out of ours.
RSpec.describe "An older phone" do
  include Tour

  before { demo }

  # Object.hasOwn stays: ChromeDriver asks it.
  let(:younger) do
    <<~JS
      for (const name of ["at", "findLast", "findLastIndex", "toSorted", "toReversed", "toSpliced", "with"])
        delete Array.prototype[name];
      for (const name of ["at", "isWellFormed"]) delete String.prototype[name];
      for (const name of ["map", "filter", "toArray", "some", "find"])
        if (window.Iterator) delete Iterator.prototype[name];
      delete Array.fromAsync;
      delete Promise.withResolvers;
      delete Object.groupBy;
      delete AbortSignal.timeout;
      delete AbortSignal.any;
      delete Crypto.prototype.randomUUID;
      delete HTMLFormElement.prototype.requestSubmit;
      delete HTMLDialogElement.prototype.showModal;
      delete Element.prototype.checkVisibility;
      delete Element.prototype.setHTMLUnsafe;
      delete HTMLElement.prototype.togglePopover;
      delete Document.prototype.startViewTransition;
      delete Navigator.prototype.locks;
      delete Navigator.prototype.connection;
      for (const name of ["structuredClone", "createImageBitmap", "MediaRecorder", "navigation", "scheduler", "reportError"])
        delete window[name];
      const FormDataOfAll = FormData;
      window.FormData = class extends FormDataOfAll { constructor(form) { if (form) super(form); else super(); } };
    JS
  end

  # The window, without what is younger from every page on that it opens from now on.
  def older(name, driver = :chromium_phone)
    window(name, driver).tap do |phone|
      script = phone.driver.browser.execute_cdp("Page.addScriptToEvaluateOnNewDocument", source: younger)["identifier"]
      (@scripts ||= []) << [phone, script]
    end
  end

  after do
    @scripts.to_a.each do |phone, id|
      phone.driver.browser.execute_cdp("Page.removeScriptToEvaluateOnNewDocument", identifier: id)
    end
  end

  # How a question of each kind is answered, by hand.
  let(:answers) do
    {
      "choice" => ->(phone) { phone.first("label.option").click },
      "writing" => ->(phone) { phone.find("[name=text]").send_keys("By the stars") },
      "words" => ->(phone) { phone.fill_in "Word 1", with: "reeds" },
      "number" => ->(phone) { phone.find("[name=number]").set("3") },
      "gaps" => ->(phone) { phone.all(".gap").each { |gap| fill_gap(gap) } },
      "order" => ->(phone) { phone.all(".order-item").last.click_button("earlier") },
      "match" => ->(phone) { %w[[data-left] [data-right]].each { |side| phone.first(side).click } },
      "spots" => ->(phone) { phone.find(".spot-picture .spot-map").click },
      "sketch" => ->(phone) { draw(phone) },
      "posts" => lambda do |phone|
        phone.fill_in "New card", with: "Storks glide"
        phone.click_button "Add this card"
      end
    }
  end

  def fill_gap(gap) = gap.tag_name == "select" ? gap.all("option").last.select_option : gap.set("mud")

  def draw(phone)
    phone.driver.browser.action.move_to(phone.find(".sheet").native, -60, 0).click_and_hold.move_by(40, 30).release.perform
  end

  it "joins, and answers each kind of question" do
    lesson = Roost::Store::Lessons.new.create(falk, everything)
    session = Roost::Operations::StartSession.new.call(falk, lesson, Tour::OPTIONS).value
    phone = older(:old)
    phone.visit "/join/#{session.code}"
    phone.fill_in "Your name", with: "Ada"
    phone.click_button "Join"
    expect(phone).to have_css(".seat-name", text: "Ada")
    expect(phone.evaluate_script("[].at === undefined && !window.createImageBitmap")).to be(true)
    command(session, "begin")
    asked = Roost::Store::Sessions.new.lesson(session.id).class_slides.select(&:prompt).uniq { |slide| slide.prompt.kind }
    asked.each do |slide|
      command(session, "jump", slide: slide.id)
      phone.find("h1", text: slide.heading.delete("*$"))
      answers.fetch(slide.prompt.kind).call(phone)
      phone.click_button "Hand in"
      expect(phone).to have_css(".answer-state", text: "✓ Handed in")
    end
    given = moment(session).record.answers.values.flat_map { |set| set.to_h.values }
    expect(given.count(&:final)).to eq(asked.length)
    expect(asked.map { |slide| slide.prompt.kind }).to match_array(answers.keys)
    expect(complaints(phone)).to eq([])
  end

  it "works through an assignment on its own" do
    slides = [slide("q1", heading: "Question 1", prompt: choice(keys: %w[o1])),
              slide("q2", heading: "Question 2", prompt: writing(size: "line"))]
    opens, closes = [-3600, 3600].map { |more| (Time.now.utc + more).strftime("%Y-%m-%dT%H:%M") }
    lesson = kept_lesson(falk, Roost::Core::Lesson.new(title: "At home", slides: slides))
    row = Roost::Operations::AssignLesson.new.call(falk, lesson, { "opens_at" => opens, "closes_at" => closes }).value
    phone = older(:old)
    phone.visit "/join/#{row.code}"
    phone.fill_in "Your name", with: "Ada"
    phone.click_button "Join"
    phone.click_button "Begin"
    phone.first("label.option").click
    turn(phone, /Next/)
    phone.fill_in "text", with: "By the stars"
    turn(phone, /Check answers/)
    phone.click_button "Hand in"
    expect(phone).to have_css("h1", text: "Handed in")
    expect(complaints(phone)).to eq([])
  end

  it "is the Desk in a teacher's hand, with its dialogs" do
    session = kept_session(falk)
    take_seat(session, "Ada")
    desk = older(:old)
    sign_in_window(:old, :chromium_phone, at: "/desk/#{session.id}")
    desk.click_button "Begin the lesson"
    desk.click_button "Next slide →"
    expect(desk).to have_css(".desk-live[data-slide=s2]")
    desk.click_button "More"
    desk.click_button "Ask now"
    desk.find("dialog[open]").click_button("Close")
    expect(desk).to have_no_css("dialog[open]")
    desk.click_button "More"
    desk.click_button "Ask now"
    desk.find("dialog[open]").fill_in("Question", with: "Who has heard one?")
    desk.find("dialog[open]").first(".kinds button").click
    expect(desk).to have_no_css("dialog[open]")
    expect(Roost::Store::Sessions.new.lesson(session.id).slides.map(&:heading)).to include("Who has heard one?")
    expect(complaints(desk)).to eq([])
  end
end

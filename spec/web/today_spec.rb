# frozen_string_literal: true

RSpec.describe "Today" do
  let(:account) { teacher }
  let(:page) { Nokogiri::HTML(get("/today").body) }

  before do
    account
    sign_in
  end

  def kestrel
    @kestrel ||= Roost::Operations::KeepClass.new.create(account, { "name" => "Year 7 Kestrel" }).value.tap do |id|
      Roost::Operations::FillClass.new.fill(account, id, Roost::Core::ClassList.paste("Ada Lindqvist\nBo Marsh").value)
    end
  end

  def assign(lesson, opens: -3600, closes: 7200)
    times = { "opens_at" => opens, "closes_at" => closes }.transform_values do |more|
      (Time.now.utc + more).strftime("%Y-%m-%dT%H:%M")
    end
    form = { "class_id" => kestrel.to_s, "entry" => "list", **times }
    Roost::Operations::AssignLesson.new.call(account, kept_lesson(account, lesson), form).value
  end

  # The seat's token of the first on the list.
  def join(row)
    ada = Roost::Store::Students.new.of_class(kestrel).first
    @joined ||= Roost::Operations::JoinSession.new.call(row.code, "", student_id: ada.id)
    @joined.value
  end

  def text(css) = page.css(css).map { |each| each.text.split.join(" ") }

  it "is where signing in leads, and says what to do first where there is nothing yet" do
    expect(last_response).to be_ok
    clear_cookies
    get "/sign-in"
    @token = token
    post_form "/sign-in", email: "falk@heronsgate.example", password: "sallow marsh at dusk"
    expect(last_response["location"]).to eq("/today")
    expect(text("h2")).to eq(["Start a lesson", "Open assignments", "Three ways to begin"])
    expect(text(".note")).to match([/Give the school a name/, /Add a class/])
    expect(text(".button.is-primary")).to eq(["Try a lesson"])
  end

  it "begins with what runs, of hers only" do
    session = kept_session(account)
    kept_session(teacher(email: "rowe@heronsgate.example"))
    command(kept_session(account), "end")
    expect(text(".today-running")).to match([/Birds on the move .* Go to the Desk/])
    expect(page.at_css(".today-running a")["href"]).to eq("/desk/#{session.id}")
    expect(text(".button.is-primary")).to include("Go to the Desk")
  end

  it "lists what is open until when, and how many have handed in, not what was withdrawn or is over" do
    row = assign(marsh_lesson)
    assign(marsh_lesson.with(title: "Later"), opens: 3600)
    %w[begin hand-in].each { |step| post "/sitting/#{join(row)}/#{step}" }
    sign_in
    open = page.css("section[aria-labelledby=today-open] li").map { |each| each.text.split.join(" ") }
    expect(open).to match([/\ABirds on the move\s*Year 7 Kestrel · until \w{3} \d+ \w{3}, \d\d:\d\d 1 of 2 handed in\z/])
  end

  it "says what waits: cards to approve, late answers to decide on" do
    posts = Roost::Core::Kinds::Posts::Prompt.new(id: "p", settings: { "approve" => true })
    board = Roost::Core::Lesson.new(title: "Board", slides: [slide("s", prompt: posts)])
    row = assign(board)
    post "/sitting/#{join(row)}/begin"
    cards = { "posts" => [JSON.generate([{ id: "p1", text: "Reeds" }])] }
    save(row, Roost::Store::Seats.new.by_token(join(row)), "s", cards, attempt: 1)
    sign_in
    late = kept_session(account)
    seat, = take_seat(late, "Bo")
    command(late, "begin")
    command(late, "jump", slide: "s3")
    save(late, seat, "s3", { "options" => ["o1"] })
    database[:answers].where(session_id: late.id).update(late: true)
    expect(text("section[aria-labelledby=today-waiting] li"))
      .to eq(["1 card to approve in “Board”, Year 7 Kestrel", "1 late answer to decide on in “Birds on the move”"])
    command(late, "jump", slide: "s2")
    save(late, seat, "s2", { "options" => ["o1"] })
    database[:answers].where(session_id: late.id).update(late: true)
    expect(Nokogiri::HTML(get("/today").body).css("section[aria-labelledby=today-waiting] li").length).to eq(2)
    Roost::Operations::LetCount.new.call(account, late.id, "s3", counts: true)
    get "/today"
    expect(last_response.body).not_to include("late answer")
  end

  it "starts a lesson with the class that is likely next, in three presses" do
    lesson = kept_lesson(account)
    kestrel
    expect(text("#today-start")).to eq(["Start a lesson with Year 7 Kestrel"])
    get page.at_css("section[aria-labelledby=today-start] li .button")["href"]
    press("$='/lessons/#{lesson}/start'")
    expect(database[:sessions].get(:class_id)).to eq(kestrel)
    expect(get(last_response["location"]).body).to include("Begin the lesson")
  end
end

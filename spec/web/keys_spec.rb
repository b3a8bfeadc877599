# frozen_string_literal: true

# A seat is told nothing of what is right before the teacher tells it. The same question is put
# twice with different keys, and everything that is sent compared, byte by byte.
RSpec.describe "What a seat is sent" do
  fragments = Roost::Web::Fragments.new

  swapped = lambda do |text|
    words = text.scan(/\[\[(.+?)\]\]/).flatten.rotate
    text.gsub(/\[\[.+?\]\]/) { "[[#{words.shift}]]" }
  end
  # What makes another key of it, for every kind that can have one.
  other_keys = {
    "choice" => ->(settings) { { "keys" => settings["options"].map { |option| option["id"] } - settings["keys"] } },
    "number" => ->(_) { { "key" => "value", "value" => "77", "tolerance" => "3" } },
    "order" => ->(settings) { { "items" => settings["items"].reverse } },
    "gaps" => ->(settings) { { "text" => swapped.call(settings["text"]) } },
    "match" => lambda do |settings|
      ids = settings["rows"].reject { |row| row["extra"] }.map { |row| row["id"] }
      { "keys" => ids.zip(ids.rotate).to_h }
    end,
    "spots" => lambda do |settings|
      { "regions" => settings["regions"].map { |each| each.merge("shape" => "circle", "numbers" => [0.97, 0.97, 0.01, 0.01]) } }
    end
  }.freeze

  it "is looked at for every kind that can have a key" do
    expect(Roost::Core::Kinds.all.select(&:keyable?).map(&:kind)).to match_array(other_keys.keys)
  end

  # All there is of one kind in the demo lessons, and a few more ways of asking.
  def self.samples(kind)
    files = %w[birds-on-the-move voices-of-the-marsh].map { |name| File.join(Roost::Settings::ROOT, "demo/lessons/#{name}.yml") }
    found = files.flat_map { |file| YAML.safe_load_file(file)["slides"].filter_map { |slide| slide["prompt"] } }
    asked = found.select { |source| source["kind"] == kind.kind }.map { |source| source.except("kind") }
    more = { "choice" => [{ "shuffle" => true }, { "sure" => true }], "gaps" => [{ "bank" => true }, { "bank" => false }],
             "match" => [{ "game" => true }, { "game" => false }] }.fetch(kind.kind, [])
    (asked + more.map { |settings| asked.first.merge(settings) }).map { |settings| kind.new(id: "p1", settings: settings) }
  end

  def lesson(prompt)
    picture = Roost::Core::Picture.new(file: "#{"a" * 64}.png", width: 40, height: 30, alt: "").freeze
    Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: prompt, pictures: [picture])])
  end

  def moment_for(prompt, values, put_up)
    state = [["begin", {}], *put_up].inject(Roost::Core::Session::State.start) do |now, (name, arguments)|
      Roost::Core::Session::Commands.call(lesson(prompt), room_options, now, name, arguments, 0.0).value
    end
    seats = (1..24).map { |id| Roost::Core::Session::Seat.new(id: id, name: "Student #{id}", here: true, practice: false).freeze }
    answers = values.each_with_index.to_h { |value, place| [place + 1, answer(place + 1, "s1", value, final: place.even?)] }
    moment_of(id: 7, title: "Marsh", code: "CDFGHJ", lesson: lesson(prompt), options: room_options,
              state: state, version: 1, seats: seats, answers: { "s1" => answers }, shown: {}, seed: "x")
  end

  # @return [Array<String>] each seat's fragment, and the class screen's
  define_method(:sent) do |prompt, values, put_up|
    moment = moment_for(prompt, values, put_up)
    views = Roost::Core::Session::Views.seats(moment, (1..24).to_a)
    by_seat = views.flat_map do |view, ids|
      html = fragments.seat(view, 0.0)
      ids.map { |id| [id, fragments.for_seat(html, view, id)] }
    end
    [*by_seat.sort.map(&:last), fragments.screen(Roost::Core::Session::Views.screen(moment), 0.0)]
  end

  results = ["show", { "what" => "results" }]
  spotlight = ["spotlight", { "seat" => "2" }]
  Roost::Core::Kinds.all.select(&:keyable?).each do |kind|
    it "does not tell the key of a #{kind.label.downcase}, in any order, with answers, results or one of them up" do
      samples = self.class.samples(kind).select(&:keyed?)
      expect(samples).not_to be_empty
      samples.each do |prompt|
        other = kind.new(id: "p1", settings: prompt.settings.merge(other_keys.fetch(kind.kind).call(prompt.settings)))
        random = Random.new(3)
        values = Roost::Core::Practice::Roster.students(20, seed: 5).map { |student| prompt.simulate(student, random) }
        unless prompt.respond_to?(:game?) && prompt.game?
          expect(values.map { |value| prompt.mark(value) }).not_to eq(values.map { |value|
            other.mark(value)
          })
        end
        [[], [results], [spotlight]].product([[], values]).each do |put_up, given|
          expect(sent(other, given, put_up)).to eq(sent(prompt, given, put_up))
        end
      end
    end
  end

  it "calls the parts of a question otherwise at each seat, and is read back there only" do
    prompt = self.class.samples(Roost::Core::Kinds::Order::Prompt).first
    one, other = [1, 2].map do |seat_id|
      Roost::Core::Session::ItemIds.new(secret: "s", session_id: 7, seat_id: seat_id, slide: slide("s1", prompt: prompt))
    end
    names = prompt.part_ids.map { |id| one.of(id) }
    expect(names & prompt.part_ids.map { |id| other.of(id) }).to be_empty
    expect(prompt.read({ "order" => [names.join(",")] }, one).value).to eq({ "order" => prompt.part_ids })
    [names.join(","), prompt.part_ids.join(",")].each do |sent|
      expect(prompt.read({ "order" => [sent] }, other).ok?).to be(false)
    end
  end

  it "tells of two parts whether they belong together only where they lie face down" do
    turns = lambda do |prompt|
      next [] unless prompt.reader.respond_to?(:turned)

      names = Roost::Core::Session::ItemIds.new(secret: "s", session_id: 7, seat_id: 1, slide: slide("s1", prompt: prompt))
      prompt.part_ids.map { |id| names.of(id) }.permutation(2).filter_map { |cards| prompt.reader.turned(cards, names) }
    end
    games, others = Roost::Core::Kinds.all.flat_map { |kind| self.class.samples(kind) }.partition do |prompt|
      prompt.respond_to?(:game?) && prompt.game?
    end
    expect([games, others].map(&:any?)).to eq([true, true])
    expect(others.flat_map(&turns)).to be_empty
    games.each { |prompt| expect(turns.call(prompt).uniq.length).to eq(prompt.keys.length) }
  end

  it "has no seat's id in it, nor a mark that was not filled in" do
    board = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: { "approve" => false })
    card = { "id" => "p1", "text" => "Heron", "emoji" => "", "picture" => nil, "at" => 1 }
    values = Array.new(3) { { "posts" => [card], "likes" => [], "writing" => "" } }
    sent(board, values, []).each do |html|
      expect(html).to include("Heron")
      expect(html).not_to match(/\d+-p1\b/)
      expect(html).not_to include(Roost::Web::ItemIdPlaceholders::NONCE)
    end
  end
end

# The same over time: what a student is shown by whatever page, as long as anybody may still answer.
RSpec.describe "What students are shown of a key afterwards" do
  let(:account) { teacher }
  let(:kestrel) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:lesson) do
    asked = Array.new(2) do |at|
      slide("q#{at}", heading: "Q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1], explanation: "Since so."))
    end
    Roost::Core::Lesson.new(title: "Birds", slides: asked)
  end
  let(:lesson_id) { kept_lesson(account, lesson) }
  let(:school) { Roost::Operations::SchoolClock.here }

  before do
    rows = %w[Ada Bo].each_with_index.map { |name, at| [at + 1, { name: name }] }
    Roost::Operations::FillClass.new.fill(account, kestrel, Roost::Core::ClassList.read(rows).value)
  end

  def now = Roost::Store::Sessions.new.now

  def passes = @passes ||= Roost::Store::Students.new.of_class(kestrel).to_h { |each| [each.name, pass_of(each)] }

  def pass_of(student)
    Roost::Core::StudentPass.make(SecureRandom).tap { |pass| Roost::Store::Students.new.give_pass(student.id, pass) }
  end

  def assign(**form)
    times = { opens_at: school.field(now - 120), closes_at: school.field(now + 7200), entry: "pass", class_id: kestrel.to_s,
              going_back: "1" }
    Roost::Operations::AssignLesson.new.call(account, lesson_id, times.merge(form).transform_keys(&:to_s)).value
  end

  def enter(row, name = "Ada")
    post "/pass/#{passes.fetch(name)}/join", session: row.id
    last_response["location"][%r{/seat/(.+)}, 1]
  end

  def seat(token) = Roost::Store::Seats.new.by_token(token)

  # Starts an attempt and hands it in with what is given.
  def hand_in(row, token, given = {}, attempt: 1)
    post "/sitting/#{token}/begin"
    given.each { |id, option| save(row, seat(token), id, picked(option), attempt: attempt) }
    post "/sitting/#{token}/hand-in"
  end

  # Everything that a student can look at of a session.
  def shown(token) = [get("/sitting/#{token}").body, copy(token)].join

  def copy(token)
    path = Roost::Web::Copies.path(seat(token)[:id])
    get(path).status == 200 ? last_response.body : ""
  end

  def explained?(html) = html.include?("Since so.") || html.include?("<dt>Right</dt>")

  def closed(row)
    back = "- interval '3 hours'"
    database[:assignments].where(session_id: row.id).update(closes_at: Sequel.lit("closes_at #{back}"),
                                                            opens_at: Sequel.lit("opens_at #{back}"))
    database[:sittings].where(session_id: row.id).update(window_ends_at: Sequel.lit("window_ends_at #{back}"))
    Roost::Operations::CloseSessions.new.call
  end

  it "is nothing of blanks that were handed in while an attempt is left, by page, copy or link; and all when it has closed" do
    row = assign(attempts: "2", feedback: "explained")
    token = enter(row)
    hand_in(row, token)
    expect([explained?(shown(token)), copy(token)]).to match([false, /no answer/])
    post "/sitting/#{token}/begin"
    save(row, seat(token), "q0", picked("o2"), attempt: 2)
    post "/sitting/#{token}/hand-in"
    expect(explained?(copy(token))).to be(false)
    closed(row)
    expect(explained?(copy(token))).to be(true)
  end

  it "is nothing on a copy while another student still may" do
    row = assign(feedback: "explained")
    ada = enter(row)
    hand_in(row, ada, { "q0" => "o1", "q1" => "o2" })
    expect([copy(ada).include?("✗ Not this time"), explained?(copy(ada))]).to eq([true, false])
    later = { "way" => "until", "closes_at" => school.field(now + 86_400) }
    Roost::Operations::AllowMore.new.call(account, row.id, { seat_id: seat(enter(row, "Bo"))[:id] }, later)
    closed(row)
    expect(explained?(copy(ada))).to be(false)
  end

  it "is nothing while a second class has the lesson, a catch-up is open, or a question was brought back; unless released" do
    row = assign(feedback: "end")
    ada = enter(row)
    hand_in(row, ada, { "q0" => "o1", "q1" => "o2" })
    closed(row)
    expect(explained?(copy(ada))).to be(true)
    brought = Roost::Operations::BringBack.new.call(account, kestrel, chosen: %w[p1], lesson_id: nil, way: "paced",
title: "Opener").value
    others = [kept_lesson_session(lesson_id), Roost::Operations::GiveCatchUp.new.call(account, row.id).value,
              kept_lesson_session(brought)]
    others.each do |other|
      database[:sessions].exclude(id: [row.id, other.id]).update(ended_at: Sequel.lit("now()"))
      database[:sessions].where(id: other.id).update(ended_at: nil)
      expect([other.title, explained?(shown(ada))]).to eq([other.title, false])
    end
    expect(Roost::Operations::StillOpen.new.call(Roost::Store::Sessions.new.find(row.id)).map(&:id)).to eq([others.last.id])
    Roost::Operations::ReleaseCopies.new.call(account, row.id, true)
    expect(explained?(copy(ada))).to be(true)
  end

  def kept_lesson_session(id) = Roost::Operations::StartSession.new.call(account, id, {}).value

  it "of the room's questions is only what the class saw" do
    session = Roost::Operations::StartSession.new.call(account, lesson_id, { "own_copy" => "1", "opens_itself" => "1" }).value
    device, token = take_seat(session)
    command(session, "begin")
    %w[q0 q1].each do |id|
      command(session, "jump", slide: id)
      Roost::Operations::VisitSeat.new.call(device, Roost::Store::Sessions.new.find(session.id))
      save(session, device, id, picked("o2"))
      command(session, "close")
      put_back(session, 2, :closed_at, slide: id)
      command(session, "show", what: "key") if id == "q0"
    end
    command(session, "end")
    expect([copy(token).scan("Since so.").length, copy(token).scan("✗ Not this time").length]).to eq([1, 1])
  end

  it "settles a question: what comes after it was shown earns nothing, in a second tab or after a reopening" do
    row = assign(feedback: "explained")
    token = enter(row)
    hand_in(row, token, { "q0" => "o2" })
    get "/sitting/#{token}"
    later = { "way" => "until", "closes_at" => school.field(now + 86_400) }
    Roost::Operations::AllowMore.new.call(account, row.id, { seat_id: seat(token)[:id] }, later)
    expect(save(row, seat(token), "q1", picked("o1")).state).to eq("late")
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(row.id))
    expect(record.outcome("q1", seat(token)[:id]).mark).to eq(0)
    Roost::Operations::LetCount.new.call(account, row.id, "q1", counts: true)
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(row.id))
    expect(record.outcome("q1", seat(token)[:id]).mark).to eq(1)
  end
end

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
      Roost::Core::Session::Handles.new(secret: "s", session_id: 7, seat_id: seat_id, slide: slide("s1", prompt: prompt))
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
      names = Roost::Core::Session::Handles.new(secret: "s", session_id: 7, seat_id: 1, slide: slide("s1", prompt: prompt))
      prompt.part_ids.map { |id| names.of(id) }.permutation(2).filter_map { |cards| prompt.turned(cards, names) }
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
      expect(html).not_to include(Roost::Web::Marks::NONCE)
    end
  end
end

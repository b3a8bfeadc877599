# frozen_string_literal: true

RSpec.describe Roost::Core::Kinds::Posts::Prompt do
  let(:blank) { Roost::Core::Session::Curation::BLANK }

  def posts(**settings) = described_class.new(id: "p1", settings: settings.transform_keys(&:to_s))

  def post(id, text, at: 0, **parts) = { "id" => id, "text" => text, "emoji" => "", "picture" => nil, "at" => at }.merge(parts)

  def given(*list, likes: []) = { "posts" => list, "likes" => likes, "writing" => "" }

  def read(list, prompt: posts, **raw) = prompt.read({ "posts" => [JSON.generate(list)], **raw.transform_keys(&:to_s) })

  let(:values) do
    { 1 => given(post("p1", "First", at: 10), post("p2", "Third", at: 30), likes: ["2-p1"]),
      2 => given(post("p1", "Second", at: 20), likes: %w[1-p1 1-p2]) }
  end

  it "shows nothing before the teacher has let it through, in the order in which that was done" do
    gather = ->(curation) { posts.gathered(values, names: { 1 => "Ada", 2 => "Bo" }, curation: curation) }
    expect(gather.call(blank).waiting.map(&:text)).to eq(%w[First Second Third])
    expect(posts.for_class(gather.call(blank))).to be_empty
    through = gather.call(blank.after("approve", %w[1-p2 2-p1]))
    expect(posts.for_class(through).up.map { |card| [card.text, card.name] }).to eq([["Third", nil], ["Second", nil]])
    expect(through.up.map(&:name)).to eq(%w[Ada Bo])
    removed = gather.call(blank.after("approve", %w[1-p2 2-p1]).after("remove", ["1-p2"]))
    expect(posts.for_class(removed).up.map(&:text)).to eq(["Second"])
    expect(removed.removed.map(&:text)).to eq(["Third"])
  end

  it "has a card wait again that is written anew under the same key, and lets through by the key what an earlier version did" do
    before = posts.gathered(values)
    curation = blank.after("approve", before.waiting.map(&:stamp))
    anew = values.merge(2 => given(post("p1", "Something else", at: 20)))
    board = posts.gathered(anew, curation: curation, before: posts.gathered(values, curation: curation))
    expect([board.up.map(&:text), board.waiting.map(&:text)]).to eq([%w[First Third], ["Something else"]])
    expect([posts.waiting(before), posts.waiting(board)]).to eq([3, 1])
    hidden = curation.after("hold", before.waiting.flat_map { |card| [card.stamp, card.key] })
    expect(posts.gathered(values, curation: hidden).up).to eq([])
  end

  it "may be seen by students at work alone who have put something on it, where the teacher lets them" do
    expect([posts, posts(others: false)].map(&:shows_others?)).to eq([true, false])
    gave = [given, given(post("p1", "First")), given(likes: ["2-p1"])].map { |value| posts.on_board?(value) }
    expect(gave).to eq([false, true, false])
  end

  it "shows all at once where that is asked, in the order in which they came, pinned ones first, with likes" do
    prompt = posts(approve: false, named: true)
    tally = prompt.for_class(prompt.gathered(values, names: { 1 => "Ada", 2 => "Bo" }, curation: blank.after("pin", ["1-p2"])))
    expect(tally.up.map { |card| [card.text, card.name, card.likes] })
      .to eq([["Third", "Ada", 1], ["First", "Ada", 1], ["Second", "Bo", 1]])
  end

  it "comes to the same from the board before as from the start, and makes only the cards that changed" do
    steps = PropCheck::Generators.array(PropCheck::Generators.choose(0..71), max: 15)
    PropCheck.forall(steps) do |picks|
      curation = blank
      given_so_far = {}
      board = nil
      picks.each do |pick|
        what, seat = pick.divmod(6)
        key = "#{seat % 3}-p1"
        curation = curation.after(%w[approve remove restore hold pin unpin][what], [key]) if what < 6
        given_so_far = given_so_far.merge(seat => given(post("p1", "Card #{pick}", at: pick % 5), likes: [key])) if what > 5
        given_now = { names: { seat => "Ada#{pick}" }, curation: curation }
        board = posts.gathered(given_so_far, before: board, **given_now)
        lists = ->(one) { [one.up, one.waiting, one.removed, one.answered] }
        expect(lists.call(board)).to eq(lists.call(posts.gathered(given_so_far, **given_now)))
      end
    end
    first = posts.gathered(values)
    second = posts.gathered(values.merge(3 => given(post("p1", "New", at: 99))), before: first)
    expect(second.waiting.first).to equal(first.waiting.first)
  end

  it "is no longer than two hundred cards for the class, and says how many more there are" do
    many = (1..205).to_h { |seat| [seat, given(post("p1", "Card #{seat}", at: seat))] }
    shown = posts(approve: false).then { |prompt| prompt.for_class(prompt.gathered(many)) }
    expect([shown.up.length, shown.beyond, shown.up.last.text]).to eq([200, 5, "Card 200"])
  end

  it "reads cards, and refuses what is none" do
    picture = { "file" => "#{"a" * 64}.jpg", "width" => 800, "height" => 600 }
    card = { "id" => "p1", "text" => " Hi ", "emoji" => "🐦", "picture" => picture, "at" => 5 }
    kept = post("p1", "Hi", at: 5, "emoji" => "🐦", "picture" => picture.merge("alt" => ""))
    expect(read([card]).value["posts"]).to eq([kept])
    with_likes = read([card], likes: ['["7-p1","7-p1","x",3]'], writing: ["so far"]).value
    expect(with_likes.values_at("likes", "writing")).to eq([["7-p1"], "so far"])
    [[{ "id" => "x", "text" => "a" }], [{ "id" => "p1", "text" => "" }], [card, card], ["p1"], [nil],
     [card.merge("picture" => picture.merge("file" => "../../etc/passwd"))],
     [card.merge("picture" => picture.merge("width" => 0))],
     [card.merge("picture" => picture.merge("file" => "#{"a" * 64}.svg"))]].each do |bad|
      expect(read(bad).reason).to start_with("Those cards could not be read.")
    end
    expect(read([card], prompt: posts(pictures: false)).ok?).to be(false)
    expect(read([{ "id" => "p1", "text" => "x" * 281 }]).reason).to start_with("A card is too long")
    four = %w[1 2 3 4].map { |number| { "id" => "p#{number}", "text" => number } }
    expect(read(four).reason).to eq("3 cards is the most here. Remove one.")
  end

  it "keeps what is typed and not posted, which is no card yet" do
    typed = { "posts" => [], "likes" => [], "writing" => "half" }
    expect(posts.blank_answer?(typed)).to be(false)
    expect(posts.tally([typed]).answered).to eq(0)
    expect(posts.plain(typed)).to eq("half")
    expect([posts.blank_answer?(given), posts.blank_answer?(given(likes: ["7-p1"]))]).to eq([true, false])
    expect(posts.plain(given(post("p1", "Hi", "emoji" => "🐦")))).to eq("🐦 Hi")
  end

  it "stands in columns from the first card that is put into one" do
    board = posts(approve: false, columns: %w[Stays Leaves])
    grouped = lambda do |curation|
      board.grouped(board.gathered(values, curation: curation).up).map { |name, cards| [name, cards.map(&:text)] }
    end
    expect(grouped.call(blank)).to eq([[nil, %w[First Second Third]]])
    one = blank.after("column", ["2-p1"], 1)
    expect(grouped.call(one)).to eq([[nil, %w[First Third]], ["Stays", []], ["Leaves", ["Second"]]])
    expect(grouped.call(one.after("column", %w[1-p1 1-p2], 0))).to eq([["Stays", %w[First Third]], ["Leaves", ["Second"]]])
    expect(grouped.call(blank.after("column", ["2-p1"], 9))).to eq([[nil, %w[First Second Third]]])
  end

  it "takes several pages on the class screen, each column going on by itself" do
    many = (1..14).to_h { |seat| [seat, given(post("p1", "Card #{seat}", at: seat))] }
    plain = posts(approve: false)
    shown = plain.for_class(plain.gathered(many))
    expect([plain.pages(shown, nil), plain.page(shown, nil, 1).up.map(&:text)]).to eq([2, ["Card 13", "Card 14"]])
    board = posts(approve: false, columns: %w[Stays Leaves])
    sorted = board.for_class(board.gathered(many, curation: blank.after("column", (1..8).map { |seat| "#{seat}-p1" }, 0)))
    pages = Array.new(board.pages(sorted, nil)) { |number| board.page(sorted, nil, number) }
    expect(pages.map { |page| page.groups.map { |name, cards| [name, cards.length] } })
      .to eq([[[nil, 6], ["Stays", 6], ["Leaves", 0]], [[nil, 0], ["Stays", 2], ["Leaves", 0]]])
  end

  it "has up to four columns" do
    expect(posts.edited({ "columns" => "Stays, Leaves,,Stays" }).value.columns).to eq(%w[Stays Leaves])
    expect(posts.edited({ "columns" => "a,b,c,d,e" }).reason).to eq("4 columns is the most a board can have.")
  end

  it "is on the board from the moment it is asked, and reaches seats as it comes" do
    lesson = Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: posts)])
    state = Roost::Core::Session::Commands.call(lesson, room_options, Roost::Core::Session::State.start, "begin", {}, 0.0).value
    expect(state.showing).to eq({ "results" => true })
  end
end

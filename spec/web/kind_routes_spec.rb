# frozen_string_literal: true

# What an answering form asks the server, as its kind has it: here the pairs game.
RSpec.describe "What a form asks while it is answered" do
  let(:pairs) do
    rows = [%w[Heron fish], %w[Robin worms]].map.with_index(1) do |(left, right), place|
      { "id" => "m#{place}", "left" => left, "right" => right }
    end
    Roost::Core::Kinds::Match::Prompt.new(id: "p1", settings: { "rows" => rows, "game" => true })
  end
  let(:account) { teacher }
  let(:session) do
    slides = [slide("s1", prompt: pairs), slide("s2", prompt: choice(id: "p2", keys: ["o1"]))]
    kept_session(account, Roost::Core::Lesson.new(title: "Pairs", slides: slides)).tap { |row| command(row, "begin") }
  end
  let(:sitting) { take_seat(session, "Ada") }
  let(:names) { Roost::Operations::SaveAnswer.names(sitting.first, Roost::Store::Sessions.new.lesson(session.id).slide("s1")) }

  def ask(*items, slide: "s1", token: sitting.last)
    query = { slide: slide, cards: items.map { |id| names.of(id) }.join(",") }
    get "/seat/#{token}/kinds/match/turned?#{Rack::Utils.build_query(query)}"
    [last_response.status, (JSON.parse(last_response.body)["pair"] if last_response.ok?)]
  end

  it "is told one try at a time, in the words of that seat" do
    expect([ask("m1a", "m1b"), ask("m1b", "m1a")]).to eq([[200, [names.of("m1a"), names.of("m1b")]]] * 2)
    expect([ask("m1a", "m2b"), ask("m1a", "m1a"), ask("m1a"), ask]).to eq([[200, nil]] * 4)
    get "/seat/#{sitting.last}/kinds/match/turned?slide=s1&cards=m1a,m1b" # what the lesson calls them
    expect(JSON.parse(last_response.body)).to eq({ "pair" => nil })
  end

  it "is not told of another kind's question, of one that isn't open, to nobody, or without end" do
    expect([ask("m1a", "m1b", slide: "s2"), ask("m1a", "m1b", token: "nobody")].map(&:first)).to eq([409, 404])
    command(session, "next")
    expect(ask("m1a", "m1b", slide: "s2").first).to eq(404)
    expect(ask("m1a", "m1b").first).to eq(409)
    command(session, "back")
    command(session, "open")
    tries = Array.new(Roost::Operations::AskAbout::MOST + 1) { ask("m1a", "m2b").first }
    expect(tries.last).to eq(429)
    neighbour = take_seat(session, "Bo").last
    expect(ask("m1a", "m2b", token: neighbour).first).to eq(200)
  end

  it "is answered in the preview too, to whoever may look at the lesson" do
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: "Pairs", slides: [slide("s1", prompt: pairs)]))
    address = "/lessons/#{lesson}/preview/kinds/match/turned?slide=s1&cards=m1a,m1b"
    expect(get(address).status).to eq(302)
    sign_in
    expect([get(address).body, get(address.sub("s1", "s9")).status]).to eq(['{"pair":["m1a","m1b"]}', 404])
  end
end

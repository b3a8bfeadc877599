# frozen_string_literal: true

RSpec.describe "Teams of a session" do
  let(:account) { teacher }
  let(:ops) { Roost::Operations }

  def start(**options) = kept_session(account, **options)

  def sizes(session) = Roost::Store::Teams.new.sizes(session.id).values.sort

  def team_of(session, name)
    seat = Roost::Store::Seats.new.of(session.id).find { |each| each.name == name }
    Roost::Store::Teams.new.of(session.id).find { |team| team.id == seat.team_id }&.name
  end

  def move(session, name, team, account: self.account)
    seat = Roost::Store::Seats.new.of(session.id).find { |each| each.name == name }
    there = Roost::Store::Teams.new.of(session.id).find { |each| each.name == team }
    ops::MoveToTeam.new.call(account, session.id, seat.id, there&.id)
  end

  it "are dealt evenly as students come, also when many come at once, and who comes later to the smallest" do
    session = start(teams: "dealt", team_count: "4")
    at_once((1..22).to_a) { |number| take_seat(session, "Student #{number}") }
    expect(sizes(session)).to eq([5, 5, 6, 6])
    move(session, "Student 1", "Reed")
    take_seat(session, "Late")
    expect(sizes(session).max - sizes(session).min).to be <= 2
  end

  it "stand with each opening of a question as they were then, whoever is moved later" do
    session = start(teams: "dealt", team_count: "2")
    %w[Ada Bo].each { |name| take_seat(session, name) }
    command(session, "begin")
    command(session, "jump", slide: "s2")
    before = %w[Ada Bo].map { |name| team_of(session, name) }
    move(session, "Ada", before.last)
    command(session, "again")
    then_in = lambda do |attempt|
      kept = database[:opening_teams].where(session_id: session.id, slide_id: "s2", attempt: attempt).order(:seat_id)
      kept.select_map(:team_id).map { |id| Roost::Store::Teams.new.of(session.id).find { |team| team.id == id }.name }
    end
    expect([before.uniq.length, then_in.call(1), then_in.call(2)]).to eq([2, before, [before.last] * 2])
  end

  it "are none where none were asked for" do
    session = start
    take_seat(session, "Ada")
    expect([Roost::Store::Teams.new.of(session.id), team_of(session, "Ada")]).to eq([[], nil])
  end

  it "are dealt anew evenly, by the teacher alone" do
    session = start(teams: "dealt", team_count: "3")
    (1..10).each { |number| take_seat(session, "Student #{number}") }
    Roost::Store::Seats.new.of(session.id).each { |seat| move(session, seat.name, "Reed") }
    expect(sizes(session)).to eq([10])
    expect(ops::DealTeams.new.call(teacher(email: "moss@heronsgate.example"), session.id)).to be_nil
    ops::DealTeams.new.call(account, session.id)
    expect(sizes(session)).to eq([3, 3, 4])
  end

  it "are the groups of the class, and whoever is in none goes to the smallest" do
    id = ops::KeepClass.new.create(account, { "name" => "Kestrel" }).value
    rows = [[1, { name: "Ada Holm", group: "Reeds" }], [2, { name: "Bo Marsh", group: "Sedges" }], [3, { name: "Cleo Okafor" }]]
    form = room_options.to_document.merge("class_id" => id.to_s, "teams" => "groups", "entry" => "free")
    started = -> { ops::StartSession.new.call(account, kept_lesson(account), form) }
    expect(started.call.reason).to start_with("Nobody in that class is in a group yet.")
    ops::FillClass.new.fill(account, id, Roost::Core::ClassList.read(rows).value)
    session = started.call.value
    %w[Ada Bo Visitor].each { |name| take_seat(session, name) }
    pass = ops::StudentPasses.new.of_class(account, id).find { |student, _| student.name == "Cleo Okafor" }.last
    ops::EnterByPass.new.call(pass, session.id)
    expect([team_of(session, "Ada"), team_of(session, "Bo")]).to eq(%w[Reeds Sedges])
    expect(sizes(session)).to eq([2, 2])
  end

  it "are chosen on the device, of those there are" do
    session = start(teams: "chosen", team_count: "2")
    join = ->(name, team) { ops::JoinSession.new.call(session.code, name, team_id: team) }
    ids = Roost::Store::Teams.new.of(session.id).map(&:id)
    expect([join.call("Ada", nil), join.call("Ada", ids.max + 1)].map(&:reason)).to eq(["Choose your team."] * 2)
    %w[Ada Bo Cleo].each { |name| join.call(name, ids.last) }
    expect(sizes(session)).to eq([3])
    expect(ops::PracticeClass.new.invite(account, session.id, 4)).to be_ok
    expect(sizes(session)).to eq([3, 4])
  end

  it "keep who was in them when a question opened" do
    session = start(teams: "dealt", team_count: "2")
    %w[Ada Bo].each { |name| take_seat(session, name) }
    command(session, "begin")
    command(session, "jump", slide: "s3")
    before = [team_of(session, "Ada"), team_of(session, "Bo")]
    move(session, "Ada", before.last)
    command(session, "close")
    command(session, "open")
    kept = database[:opening_teams].join(:teams, id: :team_id).join(:seats, id: Sequel[:opening_teams][:seat_id])
                                   .select_order_map([Sequel[:seats][:name].as(:seat), Sequel[:teams][:name].as(:team)])
    expect(kept).to eq([["Ada", before.first], ["Bo", before.last]])
  end

  it "can be moved into by the session's teacher, one after the other, and not into another session's" do
    session = start(teams: "dealt", team_count: "2")
    take_seat(session, "Ada")
    other = teacher(email: "moss@heronsgate.example")
    expect(move(session, "Ada", "Sedge", account: other)).to be_nil
    expect(at_once(%w[Reed Sedge]) { |team| move(session, "Ada", team) }).to all(be_ok)
    expect(%w[Reed Sedge]).to include(team_of(session, "Ada"))
    expect(move(session, "Ada", "Lily").reason).to eq("That team isn't in this session. Reload the page.")
  end

  it "have a column each on a board that has none of its own" do
    board = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: { "approve" => false })
    post = { "id" => "a", "emoji" => "", "at" => 1 }
    value = ->(text) { { "posts" => [post.merge("text" => text)], "likes" => [], "writing" => "" } }
    tally = board.gathered({ 1 => value.call("Reed it is"), 2 => value.call("Sedge") }, teams: { 1 => "Reed", 2 => "Sedge" })
    expect(board.for_class(tally).groups.map { |name, cards| [name, cards.map(&:text)] })
      .to eq([["Reed", ["Reed it is"]], ["Sedge", ["Sedge"]]])
  end
end

# frozen_string_literal: true

# What a command changed is told with its notice, so that nobody reads the session again for it.
RSpec.describe "A session that is followed by what was told of its commands" do
  let(:session) { kept_session(teacher, opens_itself: true) }
  let(:told) { [] }
  let(:bus) do
    Roost::Live::Bus.new(on_return: -> {}, on_notice: ->(_id, scope, step) { told << step if scope == :state })
  end
  let(:followed) { Roost::Live::SessionCache.new(session.id) }

  # As it stands, and as it is read.
  def both(steps)
    read = Roost::Store::Sessions.new.find(session.id)
    followed.moment(Set[:state], steps: steps)
    [followed.row, read].map { |row| [row.version, row.state.to_document, row.state.facts] }
  end

  # As if the notices had come.
  def given
    sent = []
    allow(Roost::Store::Notices).to receive(:of).and_wrap_original do |notice, *arguments|
      notice.call(*arguments).tap { |each| sent << each[:notice] }
    end
    yield
    sent.each { |payload| bus.send(:hear, Roost::Live::Bus::CHANNEL, *JSON.parse(payload)) }
    told.shift(told.length)
  end

  commands = [["next"], ["next"], %w[show what results], %w[show what key], ["back"], ["close"], %w[open], ["eyes_up"], ["again"],
              %w[lock], %w[pen], %w[time seconds 30], ["next"]].freeze

  it "stands where it would if it were read, whatever was commanded" do
    command(session, "begin")
    followed.moment
    random = Random.new(26)
    60.times do
      steps = given do
        random.rand(1..3).times do
          name, *arguments = commands.sample(random: random)
          command(session, name, **arguments.each_slice(2).to_h.transform_keys(&:to_sym))
        end
      end
      stands, read = both(steps)
      expect(stands).to eq(read)
    end
    expect(followed.row.version).to be > 40
  end

  it "asks nothing of its row as long as every command was told" do
    command(session, "begin")
    followed.moment
    steps = given { 2.times { command(session, "next") } }
    expect(steps.map(&:version)).to eq([3, 4])
    expect_any_instance_of(Roost::Store::Sessions).not_to receive(:find)
    expect(followed.moment(Set[:state], steps: steps).version).to eq(4)
  end

  it "is read where the lesson is another: a question that was asked on the spot is there" do
    command(session, "begin")
    followed.moment
    words = Roost::Core::Kinds.on_the_spot.keys.first
    steps = given { Roost::Operations::AskNow.new.call(session.account_id, session.id, words, "Why?", from: "s1") }
    expect(steps.compact).not_to be_empty
    expect(followed.moment(Set[:state], steps: steps).slide&.heading).to eq("Why?")
  end

  it "is read where one was missed or wasn't told, and what is much is not" do
    command(session, "begin")
    followed.moment
    steps = given { 3.times { command(session, "next") } }
    expect(both(steps.drop(1)).uniq.length).to eq(1)
    expect(both([nil]).uniq.length).to eq(1)
    many = Roost::Core::Session::StepOn.new(version: 9, lesson: 1, state: { "boards" => ["x" * 9_000] }, openings: {})
    expect(JSON.parse(Roost::Store::Notices.payload(1, :state, many))).to eq([1, "state"])
  end
end

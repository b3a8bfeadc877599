# frozen_string_literal: true

require "socket"

# Two engines stand for two web processes: all they share is the database.
RSpec.describe Roost::Live::Engine do
  # Renders a view as the few words these specs look for.
  let(:renderer) do
    Class.new do
      def rendered = @rendered ||= Hash.new(0)

      def seat(view, _now)
        rendered[:seat] += 1
        board = " #{view.tally.up.length} cards" if view.tally.respond_to?(:up)
        "seat on #{view.slide&.id} #{view.open ? "open" : "closed"}#{board}"
      end

      def for_seat(html, _view, _seat_id) = html
      def screen(view, _now) = "screen on #{view.slide&.id} answered #{view.answered}"
      def desk(view, _now) = "desk on #{view.slide&.id} here #{view.seat_statuses.count(&:here)}"
    end.new
  end

  let!(:session) { kept_session(teacher) }
  let!(:engines) { Array.new(2) { engine.start } }

  after { engines.each(&:stop) }

  def engine(tick: 0.05)
    described_class.new(renderer: -> { renderer }, rehearse: ->(_id) {}, tick: tick,
                        expire: ->(id) { Roost::Operations::CommandSession.new.by_clock(id, "expire") })
  end

  # Opens a stream at one of the engines.
  def stream(audience, seat_id: nil, at: 0)
    ours, theirs = UNIXSocket.pair
    engines[at].connect(ours, audience: audience, session_id: session.id, seat_id: seat_id)
    theirs
  end

  # Reads until these words have come.
  def hear(socket, words, seconds: 30)
    text = +""
    ending = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    until text.include?(words)
      left = ending - Process.clock_gettime(Process::CLOCK_MONOTONIC)
      raise "heard #{text.inspect} rather than #{words.inspect}" unless left.positive? && socket.wait_readable(left)

      text << socket.read_nonblock(100_000)
    end
    text
  end

  it "welcomes a stream with the present view, with the version as its id" do
    command(session, "begin")
    expect(hear(stream(:seat, seat_id: take_seat(session).first[:id]),
                "seat on s1")).to match(/\n\nevent: name\ndata: Cleo\n\nid: 2\ndata: seat on s1 closed\n\n/)
  end

  it "tells every process of a command, and renders each distinct view once" do
    seats = Array.new(6) { |number| take_seat(session, "Student #{number}").first[:id] }
    sockets = seats.each_with_index.map { |seat_id, number| stream(:seat, seat_id: seat_id, at: number % 2) }
    sockets.each { |socket| hear(socket, "seat on ") }
    command(session, "begin")
    sockets.each { |socket| hear(socket, "seat on s1") } # by now every process listens
    renderer.rendered.clear
    command(session, "next")
    sockets.each { |socket| hear(socket, "seat on s2") }
    expect(renderer.rendered[:seat]).to eq(2)
  end

  it "shows answers at the screen of another process within the ticker's time" do
    command(session, "begin")
    command(session, "jump", slide: "s2")
    screen = stream(:screen, at: 1)
    hear(screen, "answered 0")
    save(session, take_seat(session).first, "s2", { "options" => ["o1"] })
    engines[0].touched(session.id)
    hear(screen, "answered 1")
  end

  describe "a board that all can see" do
    let!(:session) do
      prompt = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: { "approve" => false })
      kept_session(teacher, Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: prompt)]))
    end
    let(:writer) { take_seat(session, "Ada").first }
    let(:reader) { stream(:seat, seat_id: take_seat(session, "Bo").first[:id], at: 1) }

    # What a device has so far: cards, and what is typed and not added yet.
    def give(number, cards, writing = "")
      posts = Array.new(cards) { |card| { "id" => "p#{card + 1}", "text" => "Card #{card}" } }
      save(session, writer, "s1", { "posts" => [JSON.generate(posts)], "writing" => [writing] }, final: false, save_no: number)
      Roost::Live::Bus.announce(session.id, :answers)
    end

    it "reaches the seats as it grows, several cards in one piece, and not for what is only typed" do
      command(session, "begin")
      hear(reader, "seat on s1 open 0 cards")
      (1..3).each { |number| give(number, number) }
      expect(hear(reader, "3 cards").scan("seat on").length).to be <= 2
      rendered = renderer.rendered[:seat]
      (4..8).each { |number| give(number, 3, "half a th" * number) }
      sleep 1.2 # boards are shown every twenty ticks
      expect(renderer.rendered[:seat]).to eq(rendered)
    end
  end

  it "ends a Desk's stream with the sign-in it was opened under" do
    account = database[:sessions].where(id: session.id).get(:account_id)
    database[:account_active_session_keys].multi_insert(%w[one other].map { |id| { account_id: account, session_id: id } })
    sockets = %w[one other].map do |sign_in|
      ours, theirs = UNIXSocket.pair
      engines[0].connect(ours, audience: :desk, session_id: session.id, sign_in: sign_in)
      theirs.tap { |socket| hear(socket, "desk on") }
    end
    Roost::Store::SignIns.new.finish(account, session_id: "one")
    expect(sockets.first.wait_readable(8) && sockets.first.read).not_to be_nil # ended
    hear(sockets.last, "beat")
  end

  it "tells all devices soon, also where the first try fails" do
    seat_id = take_seat(session).first[:id]
    streams = [stream(:seat, seat_id: seat_id), stream(:seat, seat_id: seat_id, at: 1), stream(:desk), stream(:screen)]
    streams.zip(%w[seat seat desk screen]).each { |socket, word| hear(socket, "#{word} on ") }
    failures = Queue.new
    3.times { failures << true }
    %i[seat desk].each do |name|
      renderer.define_singleton_method(name) do |view, now|
        raise "no" unless view.slide.nil? || failures.empty? || failures.pop.nil?

        super(view, now)
      end
    end
    expect do
      command(session, "begin")
      hear(streams[3], "screen on s1", seconds: 1)
      streams.first(3).zip(%w[seat seat desk]).each { |socket, word| hear(socket, "#{word} on s1", seconds: 1) }
    end.to output(/told later/).to_stderr
    expect(failures).to be_empty
  end

  it "looks who is there when it listens again: nobody told it meanwhile" do
    seat_id = take_seat(session).first[:id]
    Roost::Store::Seats.new.leave([Roost::Store::Seats::PAGE])
    engines.each(&:stop)
    engines.replace([engine(tick: 2).start]) # sweeps in a hundred seconds
    desk = stream(:desk)
    command(session, "begin")
    hear(desk, "desk on s1 here 0")
    Roost::Store::Seats.new.arrive(seat_id, "key")
    listening = database[:pg_stat_activity].where(Sequel.like(:query, "LISTEN%"))
    100.times { break if listening.any? || sleep(0.05).nil? }
    expect(listening.select_map(Sequel.function(:pg_terminate_backend, :pid))).to include(true)
    hear(desk, "here 1")
  end

  it "tells the devices and all processes of a seat that is renamed or removed" do
    command(session, "begin")
    ada, bo = %w[Ada Bo].map { |name| take_seat(session, name) }
    sockets = [ada, bo].each_with_index.map { |(seat, _), at| stream(:seat, seat_id: seat[:id], at: at) }
    sockets.each { |socket| hear(socket, "seat on s1") }
    known = engines.map { |each| Roost::Web::KnownSeats.new(each) }
    expect(known.map { |seats| seats[ada.last][:name] }).to eq(%w[Ada Ada])
    account = session.account_id
    Roost::Operations::RenameSeat.new.call(account, session.id, ada.first[:id], "Adele")
    expect(hear(sockets.first, "id: 3")).to include("event: name\ndata: Adele\n\n")
    expect(hear(sockets.last, "id: 3")).not_to include("event: name") # nobody renamed that one
    sleep 0.02 until known.all? { |seats| seats[ada.last][:name] == "Adele" }
    Roost::Operations::RemoveSeat.new.call(account, session.id, ada.first[:id])
    hear(sockets.first, "event: gone")
    hear(sockets.last, "id: 4")
    sleep 0.02 until known.all? { |seats| seats[ada.last].nil? }
  end

  it "beats while the database does not answer" do
    socket = stream(:seat, seat_id: take_seat(session).first[:id])
    hear(socket, "seat on")
    allow(Roost::Store::Seats).to receive(:new).and_raise(Sequel::DatabaseConnectionError)
    expect { 3.times { hear(socket, Roost::Live::Engine::BEAT.lines.first) } }.to output.to_stderr
  end

  it "serves another session while one takes long" do
    other = kept_session(teacher(email: "moss@heronsgate.example"))
    command(session, "begin")
    hear(stream(:screen), "screen on s1")
    gate = Queue.new
    renderer.define_singleton_method(:desk) { |_view, _now| gate.pop.to_s }
    slow = stream(:desk)
    sleep 0.3 # by now it is being rendered
    ours, theirs = UNIXSocket.pair
    engines[0].connect(ours, audience: :screen, session_id: other.id)
    hear(theirs, "screen on  answered 0")
    gate << "at last"
    hear(slow, "at last")
  end

  it "holds six streams a seat, the latest, and twelve of an address at one screen, which cost no other screen or Desk its own" do
    seat_id = take_seat(session).first[:id]
    sockets = Array.new(8) { stream(:seat, seat_id: seat_id) }
    sockets.last(6).each { |socket| hear(socket, "seat on") }
    sockets.first(2).each { |socket| expect(socket.read).not_to include(Roost::Live::Engine::BEAT) }
    open = lambda do |audience, of = session|
      UNIXSocket.pair.tap { |ours, _| engines[0].connect(ours, audience: audience, session_id: of.id, address: "10.0.0.9") }.last
    end
    desk = open.call(:desk)
    other = open.call(:screen, kept_session(session.account_id))
    screens = Array.new(80) { open.call(:screen) }
    hear(desk, "desk on")
    hear(other, "screen on")
    screens.last(12).each { |socket| hear(socket, "screen on") }
    expect(screens.first(68).map { |socket| socket.read.include?(Roost::Live::Engine::BEAT) }.uniq).to eq([false])
  end

  it "notes when the open question was sent to each seat, once" do
    seat = take_seat(session).first
    command(session, "begin")
    command(session, "jump", slide: "s3")
    2.times { hear(stream(:seat, seat_id: seat[:id]), "seat on s3 open") }
    sleep 0.2
    shown = moment(session).record.shown_to("s3").to_h
    expect(shown.keys).to eq([seat[:id]])
    expect(shown.values.first).to be_within(5).of(moment(session).state.opening.opened_at)
  end

  it "closes a question by itself a second after its deadline" do
    seat = take_seat(session).first
    command(session, "begin")
    command(session, "jump", slide: "s3")
    database[:openings].where(session_id: session.id).update(deadline: Sequel.lit("deadline - interval '19 seconds'"))
    hear(stream(:seat, seat_id: seat[:id]), "seat on s3 closed")
    opening = moment(session).state.opening
    expect(opening.closed_at).to eq(opening.deadline)
  end

  it "tells the Desk who has left, whichever process they were at" do
    desk = stream(:desk, at: 1)
    seat = take_seat(session).first
    socket = stream(:seat, seat_id: seat[:id])
    hear(desk, "here 1")
    socket.close
    hear(desk, "here 0")
  end

  it "keeps a seat here that has already come back at another process when the old line dies" do
    seat = take_seat(session).first
    old = stream(:seat, seat_id: seat[:id])
    hear(old, "seat on")
    hear(stream(:seat, seat_id: seat[:id], at: 1), "seat on")
    old.close
    sleep 0.6
    expect(moment(session).seats.first.here).to be(true)
  end
end

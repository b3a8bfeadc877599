# frozen_string_literal: true

# What the largest answers make of pages and streams.
RSpec.describe "The largest answers" do
  let(:account) { teacher }
  let(:session) do
    kept_session(account, Roost::Core::Lesson.new(title: "Marsh", slides: [slide("k1", prompt: sketch(id: "p1")),
                                                                           slide("w1", prompt: writing(id: "p2"))]))
  end
  let(:zigzag) do
    points = (0...7_900).flat_map { |place| [place % 1200, place.odd? ? 0 : 900] }
    { "strokes" => [JSON.generate([{ tool: "pen", colour: "ink", points: points }])] }
  end

  # The same answer from sixty seats; what one device sends is read once, for real.
  def sixty(slide_id, fields)
    seat = take_seat(session, "First #{slide_id}").first
    expect(save(session, seat, slide_id, fields).state).to eq("final")
    row = database[:answers].where(seat_id: seat[:id], slide_id: slide_id).first
    59.times do |number|
      other = Roost::Store::Seats.new.create(session.id, "Student #{slide_id} #{number}").first
      database[:answers].insert(**row.except(:id, :seq), value: Sequel.pg_jsonb(row[:value].to_h), seat_id: other)
    end
    seat
  end

  def event_sizes
    now = moment(session)
    fragments = Roost::Web::Fragments.new
    seats = Roost::Core::Session::Views.seats(now, [now.seats.last.id]).keys.first
    [fragments.desk(Roost::Core::Session::Views.desk(now), 0.0), fragments.screen(Roost::Core::Session::Views.screen(now), 0.0),
     fragments.seat(seats, 0.0)].map(&:bytesize)
  end

  before do
    command(session, "make_room", seats: "200")
    command(session, "begin")
  end

  it "fit a stream many times over, shown in every way" do
    sixty("k1", zigzag)
    [{}, { way: "overlay", opacity: "30" }].each do |look|
      command(session, "show", what: "results", **look)
      expect(event_sizes.max).to be < Roost::Live::Hub::MOST_WAITING / 2
    end
    command(session, "jump", slide: "w1")
    sixty("w1", { "text" => ["marsh " * 1_300] })
    command(session, "show", what: "results")
    expect(event_sizes.max).to be < Roost::Live::Hub::MOST_WAITING / 2
  end

  it "make results that a phone can load, with tiles of pixels" do
    seat = sixty("k1", zigzag)
    sign_in
    %W[/results/#{session.id} /results/#{session.id}/questions /results/#{session.id}/students/#{seat[:id]}].each do |path|
      expect(get(path).body.bytesize).to be < 100_000
    end
    get last_response.body[%r{/given/[\w-]+\?[^"]+}].gsub("&amp;", "&")
    expect([last_response.headers["content-type"], last_response.body.bytesize < 250_000]).to eq(["image/png", true])
  end

  it "are read by the seat that gave them only, until they are up" do
    sixty("k1", zigzag)
    command(session, "jump", slide: "w1")
    token = take_seat(session, "Last").last
    read = 0
    allow(Roost::Core::Session::Answer).to(receive(:new).and_wrap_original { |make, **row| make.call(**row).tap { read += 1 } })
    expect(get("/seat/#{token}").status).to eq(200)
    expect(read).to eq(0)
  end

  it "are drawn by two at a time; others get the drawing itself, and a tile is drawn once" do
    svg = %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 3"><path d="M0 0H#{rand}"/></svg>)
    busy = SizedQueue.new(1).tap { |turns| turns << true }
    expect(Roost::Operations::DrawTile.new.call(svg, 40, turns: busy)).to be_nil
    free = SizedQueue.new(1)
    tile = Roost::Operations::DrawTile.new.call(svg, 40, turns: free)
    expect(tile).to start_with("\x89PNG".b)
    expect(Roost::Exchange::Raster).not_to receive(:draw)
    expect([Roost::Operations::DrawTile.new.call(svg, 40, turns: busy), free.length]).to eq([tile, 0])
    Roost::Operations::DrawTile.forget_old(most: 1)
    expect(Dir[Roost.settings.var("tiles", "*.png")].length).to be <= 1
  end
end

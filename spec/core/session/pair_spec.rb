# frozen_string_literal: true

RSpec.describe "Pairs to talk" do
  session = Roost::Core::Session
  let(:lesson) { marsh_lesson }
  let(:live) { give(session::State.start, "begin") }

  def give(state, name, arguments = {}, here: [1, 2, 3, 4])
    Roost::Core::Session::Commands.call(lesson, room_options, state, name, arguments, 100.0, present: -> { here })
                                  .then { |reading| reading.ok? ? reading.value : reading.reason }
  end

  def moment(state, **options)
    seats = (1..5).map { |id| session_seat(id) }
    moment_of(state: state, answers: {}, shown: {}, id: 1, title: "Birds", lesson: lesson, options: room_options(**options),
              seats: seats)
  end

  def session_seat(id) = Roost::Core::Session::Seat.new(id: id, name: "Bird #{id}", here: true, practice: false).freeze

  it "are of those who are here, once for a click that came twice, and kept from slide to slide" do
    state = give(live, "pair", { "size" => "2", "after" => "0" })
    expect(state.pairs.map { |groups| groups.flatten.sort }).to eq([[1, 2, 3, 4]])
    expect(give(state, "pair", { "size" => "2", "after" => "0" })).to eq(state)
    again = give(give(state, "next"), "pair", { "size" => "2", "after" => "1" })
    expect(again.pairs.flatten(1).map(&:sort).uniq.length).to eq(4)
    expect(give(state, "next").shows?("pairs")).to be(false)
    expect(session::State.from_document(JSON.parse(JSON.generate(again.to_document)), again.facts)).to eq(again)
  end

  it "are in twos or threes, of at least two" do
    expect(give(live, "pair", { "size" => "4" })).to eq("In twos or threes.")
    expect(give(live, "pair", { "size" => "2" }, here: [1])).to eq("Fewer than two are here.")
  end

  it "are shown with names, or by number alone where names are off, and to each seat its own; none to who came late" do
    state = give(live, "pair", { "size" => "2" })
    shown = session::Views.screen(moment(state)).pairs
    expect(shown.flat_map(&:names)).to match_array((1..4).map { |id| "Bird #{id}" })
    expect(session::Views.screen(moment(state, names_shown: false)).pairs.map(&:names)).to eq([nil, nil])
    seats = session::Views.seats(moment(state), [1, 5])
    mine, none = [1, 5].map { |id| seats.find { |_, ids| ids.include?(id) }.first.pair }
    partner = (state.pairs.last.find { |pair| pair.include?(1) } - [1]).first
    expect([mine.names, none]).to eq([["Bird #{partner}"], nil])
  end

  it "make way for results and answers that are put up" do
    state = give(give(give(live, "jump", { "slide" => "s2" }), "pair", { "size" => "2" }), "show", { "what" => "results" })
    expect(state.showing.keys).to include("results")
    expect(state.shows?("pairs")).to be(false)
  end
end

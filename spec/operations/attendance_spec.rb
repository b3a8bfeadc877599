# frozen_string_literal: true

RSpec.describe "Who is here, late or gone" do
  let(:session) { kept_session(teacher) }
  let(:seats) { Roost::Store::Seats.new }

  def seat(name) = seats.of(session.id).find { |each| each.name == name }

  it "is here with a stream, and away since it ended, or since its window went to the background" do
    ada, = take_seat(session, "Ada")
    expect(seat("Ada").here).to be(true) # its page comes next
    database[:seats].update(seen_at: Sequel.lit("seen_at - interval '20 seconds'"))
    expect([seat("Ada").here, seat("Ada").away_since]).to match([false, be_within(5).of(Time.now.to_f - 20)])
    seats.arrive(ada[:id], "stream")
    expect([seat("Ada").here, seat("Ada").away_since]).to eq([true, nil])
    Roost::Operations::TellAway.new.call(ada, away: true)
    database[:seats].update(hidden_at: Sequel.lit("hidden_at - interval '100 seconds'"))
    Roost::Operations::TellAway.new.call(ada, away: true)
    expect([seat("Ada").here, seat("Ada").away_since]).to match([false, be_within(5).of(Time.now.to_f - 100)])
    Roost::Operations::TellAway.new.call(ada, away: false)
    expect(seat("Ada").here).to be(true)
    seats.leave(["stream"])
    expect([seat("Ada").here, seat("Ada").away_since]).to match([false, be_within(5).of(Time.now.to_f)])
  end

  it "counts as away, also when it has answered" do
    ada, = take_seat(session, "Ada")
    seats.leave([Roost::Store::Seats::PAGE])
    command(session, "begin")
    command(session, "jump", slide: "s3")
    save(session, ada, "s3", { "options" => ["o1"] })
    bird = moment(session).seat_statuses.first
    expect([bird.state, bird.here]).to eq([:answered, false])
    html = Roost::Web::Fragments.new.desk(Roost::Core::Session::Views.desk(moment(session)), 0.0)
    expect(Nokogiri::HTML5.fragment(html).css(".desk-here, .desk-counts").map { |each| each.text.split.join(" ") })
      .to eq(["0 of 1 here · 1 away", "1 answered · 0 not yet · 1 away"])
  end

  it "is late by as much as it came after the beginning" do
    take_seat(session, "Ada")
    command(session, "begin")
    bo, = take_seat(session, "Bo")
    database[:seats].where(id: bo[:id]).update(joined_at: Sequel.lit("joined_at + interval '150 seconds'"))
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id))
    expect([seat("Ada"), seat("Bo")].map { |each| record.late(each)&.round(-1) }).to eq([nil, 150])
  end
end

# frozen_string_literal: true

RSpec.describe Roost::Operations::CloseSessions do
  let(:session) { kept_session(teacher) }
  let(:database) { Roost::Store::Database.connection }

  # Everything that is known of it happened so many hours earlier.
  def hours_ago(hours)
    earlier = ->(column) { Sequel.lit("#{column} - make_interval(hours => ?)", hours) }
    { sessions: %i[created_at updated_at], seats: %i[joined_at seen_at], session_events: %i[created_at at],
      answers: %i[received_at updated_at] }.each do |table, columns|
      (columns & database[table].columns).each { |column| database[table].update(column => earlier.call(column)) }
    end
  end

  it "ends what nobody ended as of the last sign of life in it, not when the job came by" do
    seat, = take_seat(session, "Ada")
    command(session, "begin")
    command(session, "jump", slide: "s4")
    save(session, seat, "s4", { "text" => "By the stars" })
    hours_ago(9)
    last = database[:answers].get(:received_at) || database[:answers].get(:updated_at)
    expect(described_class.new.call).to eq([session.id])
    ended = database[:sessions].where(id: session.id).get(:ended_at)
    expect(ended).to be_within(5).of(last)
  end

  it "leaves what somebody was in a while ago" do
    take_seat(session, "Ada")
    hours_ago(described_class::HOURS - 1)
    expect(described_class.new.call).to eq([])
  end
end

# frozen_string_literal: true

RSpec.describe Roost::Web::WarmUp do
  let(:tables) { database.tables - %i[schema_info] }

  def rows = tables.to_h { |table| [table, database[table].count] }

  it "leaves nothing behind, whoever looks meanwhile" do
    kept_session(teacher)
    before = rows
    described_class.shared
    described_class.own
    expect(rows).to eq(before)
  end

  it "has every template ready that the first lesson needs" do
    templates = Roost::Web::Rendering.instance_variable_get(:@templates)
    templates.clear
    described_class.shared
    read = templates.length
    page = Roost::Web::Fragments.new
    view = Roost::Core::Session::Views
    session = kept_session(teacher)
    seat, = take_seat(session)
    command(session, "begin")
    2.times do
      command(session, "next")
      now = moment(session)
      page.screen(view.screen(now), now.now)
      page.desk(view.desk(now), now.now)
      page.seat(view.seats(now, [seat[:id]]).keys.first, now.now)
    end
    expect(templates.keys.drop(read)).to eq([])
  end

  it "keeps no program from starting that can't do it" do
    allow(Roost::Operations::StartSession).to receive(:new).and_raise(Sequel::DatabaseError)
    expect { described_class.own }.to output(/Started cold: Sequel::DatabaseError/).to_stderr
  end
end

# frozen_string_literal: true

RSpec.describe Roost::Exchange::SchoolTime do
  let(:time) { described_class.new("Europe/London") }

  it "keeps to the school's clock when that changes: an hour that comes twice is the first, one left out the next" do
    night = %w[2026-10-25T00:30 2026-10-25T01:30 2026-10-25T02:30 2026-03-29T01:30 2026-03-29T02:30]
    times = night.map { |text| time.read(text).value }
    expect(times.each_cons(2).first(2).map { |one, other| other - one }).to eq([3600.0, 7200.0])
    expect(times.last(2).map { |each| time.field(each) }).to eq(%w[2026-03-29T02:30 2026-03-29T02:30])
    over_night = %w[2027-03-27T20:00 2027-03-28T20:00].map { |text| time.read(text).value }
    expect(over_night.last - over_night.first).to eq(23 * 3600.0)
  end

  it "proposes the next week, Monday to Friday, or this one where it is Monday" do
    starts = [[26, 9], [23, 7], [29, 23]].map do |day, hour|
      time.next_week(Time.utc(2026, 11, day, hour).to_f).map { |each| time.say(each) }
    end
    expect(starts).to eq([["Mon 30 Nov, 08:00", "Fri 4 Dec, 18:00"], ["Mon 23 Nov, 08:00", "Fri 27 Nov, 18:00"],
                          ["Mon 30 Nov, 08:00", "Fri 4 Dec, 18:00"]])
  end

  it "offers the same time of day some days later, over the night in which clocks change" do
    london = described_class.new("Europe/London")
    expect(london.field_days_after(Time.utc(2026, 10, 24, 17).to_f, 2)).to eq("2026-10-26T18:00")
    expect(london.field_days_after(Time.utc(2026, 3, 28, 18).to_f, 2)).to eq("2026-03-30T18:00")
  end
end

# frozen_string_literal: true

require "icalendar"

RSpec.describe Roost::Exchange::Calendar do
  it "is an event that takes nobody's time, however long it is open" do
    text = described_class.event(uid: "a1@roost", title: "At home", url: "https://roost.heronsgate.example/join/ABC", stamp: 0.0,
                                 opens_at: Time.utc(2026, 11, 23, 8).to_f, closes_at: Time.utc(2026, 11, 27, 18).to_f)
    event = Icalendar::Calendar.parse(text).first.events.first
    expect([event.summary, event.transp, event.dtstart.to_i, event.dtend.to_i])
      .to eq(["At home", "TRANSPARENT", Time.utc(2026, 11, 23, 8).to_i, Time.utc(2026, 11, 27, 18).to_i])
  end
end

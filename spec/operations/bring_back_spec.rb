# frozen_string_literal: true

RSpec.describe Roost::Operations::BringBack do
  let(:account) { teacher }
  let(:kestrel) { Roost::Operations::KeepClass.new.create(account, { "name" => "Kestrel" }).value }
  let(:lesson) do
    slides = [slide("s0")] + Array.new(3) { |at| slide("q#{at}", heading: "Q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1])) }
    kept_lesson(account, Roost::Core::Lesson.new(title: "Birds", slides: slides))
  end
  let(:bring) { described_class.new }

  def take_place(options, days)
    form = { "class_id" => kestrel.to_s, "opens_itself" => "1" }
    row = Roost::Operations::StartSession.new.call(account, lesson, form).value
    seat = take_seat(row).first
    command(row, "begin")
    options.each do |id, option|
      command(row, "jump", slide: id)
      Roost::Operations::VisitSeat.new.call(seat, Roost::Store::Sessions.new.find(row.id))
      save(row, seat, id, picked(option))
    end
    command(row, "end")
    Roost::Store::Sessions.new.backdate(row.id, by: days * 86_400, lasting: 1800)
  end

  it "finds what a class should meet again, and makes an opener of it, in a lesson or by itself" do
    expect(bring.needs(account, kestrel)).to eq([])
    take_place({ "q0" => "o2", "q1" => "o1" }, 42)
    take_place({ "q1" => "o1" }, 14)
    found = bring.needs(account, kestrel)
    expect(found.map { |need| [need.slide.id, need.share, need.days.round] }).to eq([["q0", 0, 42], ["q1", 1, 14]])
    make = ->(**how) { bring.call(account, kestrel, chosen: %w[p1 p0], way: "quiz", title: "Opener", lesson_id: nil, **how) }
    fresh = Roost::Store::Lessons.new.find(account, make.call.value).lesson
    expect([fresh.slides.map(&:heading), fresh.quizzes.first.slide_ids]).to eq([%w[Q0 Q1], fresh.slides.map(&:id)])
    id = make.call(lesson_id: lesson, way: "paced").value
    changed = Roost::Store::Lessons.new.find(account, id).lesson
    expect([id, changed.slides.map(&:heading).first(3), changed.quizzes]).to eq([lesson, ["Q0", "Q1", "Birds of the marsh"], []])
    expect([make.call(chosen: ["none"]).reason, make.call(lesson_id: 0)]).to eq([described_class::NONE, nil])
  end
end

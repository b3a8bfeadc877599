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
    Roost::Store::SessionTimes.new.put_back(row.id, by: days * 86_400, lasting: 1800)
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

  it "leaves practice students out of what was done alone, too" do
    form = { "class_id" => kestrel.to_s, "entry" => "free" }
    { "opens_at" => -3600, "closes_at" => 7200 }.each do |name, more|
      form[name] = (Time.now.utc + more).strftime("%Y-%m-%dT%H:%M")
    end
    row = Roost::Operations::AssignLesson.new.call(account, lesson, form).value
    %w[o1 o2].each_with_index do |option, at|
      seat = take_seat(row, "Student #{at}").first
      taken = [{ begins: true }, { to: 2 }].map do |how|
        Roost::Operations::TakeSitting.new.call(seat, Roost::Store::Sessions.new.find(row.id), **how)
      end.last
      save(row, seat, "q0", picked(option), final: false)
      Roost::Operations::HandInSitting.new.call(seat, taken)
      database[:seats].where(id: seat[:id]).update(practice: option == "o2")
    end
    database[:sessions].where(id: row.id).update(ended_at: Sequel.lit("now() - interval '14 days'"))
    expect(bring.needs(account, kestrel).map { |need| [need.slide.id, need.share] }).to eq([["q0", 1]])
  end

  # A session with every way of not having given a full answer, in a round and outside of one.
  def mixed(random)
    slides = Array.new(5) { |at| slide("q#{at}", heading: "Q#{at}", prompt: choice(id: "p#{at}", keys: %w[o1 o2])) }
    lesson = Roost::Core::Lesson.new(title: "Mixed", slides: slides, sections: [section("r1", "game", %w[q3 q4])])
    form = { "class_id" => kestrel.to_s, "opens_itself" => "1", "speed_share" => "0.5" }
    row = Roost::Operations::StartSession.new.call(account, kept_lesson(account, lesson), form).value
    seats = Array.new(8) { take_seat(row, "Student #{_1}").first }
    database[:seats].where(id: seats[1][:id]).update(keypad: 7)
    database[:seats].where(id: seats[2][:id]).update(practice: true)
    command(row, "begin")
    slides.each { |each| ask(row, each.id, seats, random) }
    database[:seats].where(id: seats[3][:id]).update(removed_at: Sequel.function(:now))
    command(row, "put_aside", slide: "q2")
    command(row, "end")
  end

  def ask(row, id, seats, random)
    command(row, "jump", slide: id)
    (id == "q0" ? seats - [seats[1]] : seats).each do |seat| # the keypad presses nothing there
      Roost::Store::Deliveries.new.note(row.id, id, [seat[:id]]) if random.rand < 0.7
      given = [picked("o1"), picked("o2"), picked("o1", "o2"), { "options" => [] }].sample(random: random)
      save(row, seat, id, given) if random.rand < 0.6
    end
    command(row, "close")
    late = database[:answers].where(session_id: row.id, slide_id: id, seat_id: seats.last[:id])
    late.update(late: true, let_count: random.rand < 0.5)
  end

  it "counts as the results do", :aggregate_failures do
    3.times do |seed|
      mixed(Random.new(seed))
      row = Roost::Store::Sessions.new.find(Roost::Store::PastSessions.new.ended_of_class(account, kestrel, 1).keys.first)
      seats = Roost::Store::Seats.new.of(row.id).reject(&:practice)
      questions = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(row, seats: seats)).questions
      shares = questions.to_h { |question| [question.slide.id, question.facility] }
      expect(shares.compact.keys).to eq(%w[q0 q1 q3 q4])
      expect(bring.needs(account, kestrel).to_h { |need| [need.slide.id, need.share] }).to eq(shares.compact)
    end
  end
end

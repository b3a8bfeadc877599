# frozen_string_literal: true

RSpec.describe Roost::Core::Analysis::CatchUp do
  let(:lesson) do
    asked = ->(id, **key) { slide(id, heading: id, prompt: choice(id: "p#{id}", **key)) }
    first, second, third = %w[q1 q2 q3].map { |id| asked.call(id, keys: %w[o1]) }
    slides = [slide("a"), slide("b"), first, second, slide("c"), asked.call("poll", poll: true), third]
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:roll) do
    %w[Ada Bo Cleo Dev].each_with_index.map { |name, at| Roost::Core::Student.new(id: at + 1, name: name, shown_name: name).freeze }
  end

  # @param given [Hash] seat id to ids of slides to options
  def missed(given, set_aside: [])
    openings = %w[q1 q2 poll q3].to_h { |id| [id, [Roost::Core::Session::Opening.new(attempt: 1, opened_at: 0.0, closed_at: 60.0)]] }
    seats = given.keys.map { |id| Roost::Core::Session::Seat.new(id: id, name: "S#{id}", student_id: id, here: true) }
    answers = Hash.new { |all, key| all[key] = {} }
    given.each { |seat, by_slide| by_slide.each { |id, option| answers[[id, 1]][seat] = answer(seat, id, picked(option)) } }
    shown = openings.keys.to_h { |id| [[id, 1], given.keys.to_h { |seat| [seat, 1.0] }] }
    facts = Roost::Core::Session::Facts.of(openings: openings, set_aside: set_aside)
    record = record_of(lesson: lesson, facts: facts, seats: seats, answers: answers.to_h, shown: shown, roll: roll)
    described_class.new(record).missed
  end

  it "gives who was absent all, and who was below the line what was not right, with the slides before, in order" do
    right = { "q1" => "o1", "q2" => "o1", "poll" => "o2", "q3" => "o1" }
    found = missed({ 1 => right, 2 => right.merge("q3" => "o2").except("poll"), 3 => right.merge("q2" => "o2", "q1" => "o2") })
    expect(found.map { |each| [each.student.name, each.share, each.slides] })
      .to eq([["Bo", 2/3r, %w[c poll q3]], ["Cleo", 1/3r, %w[a b q1 q2]], ["Dev", nil, %w[a b q1 q2 c poll q3]]])
    expect(found.map(&:absent)).to eq([false, false, true])
  end

  it "leaves out what was set aside, and gives nobody anything who has missed nothing" do
    found = missed({ 1 => { "q1" => "o1", "q2" => "o2", "poll" => "o1", "q3" => "o1" } }, set_aside: %w[q2])
    expect(found.map { |each| each.student.name }).to eq(%w[Bo Cleo Dev])
    expect(found.first.slides).not_to include("q2")
  end
end

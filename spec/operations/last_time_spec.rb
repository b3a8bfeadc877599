# frozen_string_literal: true

RSpec.describe Roost::Operations::LastTime do
  let(:account) { teacher }
  let(:slides) { %w[q1 q2].map { |id| slide(id, prompt: choice(id: "p#{id}", keys: %w[o1])) } }
  let(:lesson) { kept_lesson(account, Roost::Core::Lesson.new(title: "Birds", slides: slides)) }

  # @param given [Hash{String=>Array<String>}] ids of slides to what each student picked
  def give(given, practice: [])
    row = Roost::Operations::StartSession.new.call(account, lesson, { "opens_itself" => "1" }).value
    seats = Array.new(given.values.map(&:length).max) { |at| take_seat(row, "Student #{at}").first }
    database[:seats].where(id: practice.map { |at| seats[at][:id] }).update(practice: true)
    command(row, "begin")
    given.each do |id, options|
      command(row, "jump", slide: id)
      options.each_with_index { |option, at| save(row, seats[at], id, { "options" => [option] }) }
    end
    command(row, "end")
  end

  def shares = described_class.new.call(account, lesson)

  it "is the mean mark of each question in the latest session that asked it" do
    expect(shares).to eq({})
    give({ "q1" => %w[o1 o1 o2], "q2" => %w[o2] })
    give({ "q1" => %w[o1 o2] })
    expect(shares).to eq({ "q1" => 0.5, "q2" => 0.0 })
  end

  it "leaves out students of a practice class" do
    give({ "q1" => %w[o1 o2 o2] }, practice: [1, 2])
    expect(shares).to eq({ "q1" => 1.0 })
  end
end

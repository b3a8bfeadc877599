# frozen_string_literal: true

RSpec.describe "Talk time and timers" do
  session = Roost::Core::Session
  let(:lesson) { marsh_lesson }
  let(:options) { room_options }
  let(:live) { give(session::State.start, "begin", {}) }

  def give(state, name, arguments = {}, now: 100.0, options: self.options)
    Roost::Core::Session::Commands.call(lesson, options, state, name, arguments, now).value
  end

  def reason(state, name, arguments) = Roost::Core::Session::Commands.call(lesson, options, state, name, arguments, 100.0).reason

  it "runs over any slide, is made longer and shorter, and goes with the slide" do
    state = give(live, "talk", { "what" => "talk", "seconds" => "120" })
    expect([state.talk.words, state.talk.deadline]).to eq(["Talk with your neighbour", 220.0])
    state = give(state, "move_talk", { "seconds" => "30" }, now: 200.0)
    expect([state.talk.deadline, state.talk.length]).to eq([250.0, 120])
    expect(give(state, "move_talk", { "seconds" => "-600" }, now: 210.0).talk.deadline).to eq(210.0)
    expect(give(state, "move_talk", { "seconds" => "30" }, now: 400.0).talk.deadline).to eq(430.0)
    expect(give(state, "end_talk").talk).to be_nil
    expect(give(state, "next").talk).to be_nil
    expect(give(state, "end").talk).to be_nil
  end

  it "is 10 seconds to an hour of thinking, talking or writing" do
    [{ "what" => "talk", "seconds" => "9" }, { "what" => "talk", "seconds" => "3601" }, { "what" => "talk", "seconds" => "x" },
     { "what" => "sing", "seconds" => "60" }, {}].each do |arguments|
      expect(reason(live, "talk", arguments)).to eq("Talk time is 10 seconds to an hour.")
    end
    expect(reason(session::State.start, "talk", { "what" => "talk", "seconds" => "60" })).to start_with("The lesson hasn't begun")
  end

  it "comes back from where it was kept" do
    state = give(live, "talk", { "what" => "write", "seconds" => "60" })
    expect(session::State.from_document(JSON.parse(JSON.generate(state.to_document)), state.facts)).to eq(state)
  end

  it "is seen by all" do
    state = give(live, "talk", { "what" => "think", "seconds" => "60" })
    moment = moment_of(state: state, answers: {}, shown: {}, id: 1, title: "Birds", lesson: lesson, options: options, seats: [])
    views = [session::Views.desk(moment), session::Views.screen(moment), session::Views.seats(moment, [1]).keys.first]
    expect(views.map(&:talk).uniq).to eq([state.talk])
  end

  it "puts results up when a question's time is over, where the teacher chose so, and not otherwise" do
    { true => true, false => false }.each do |chosen, up|
      own = room_options(results_itself: chosen)
      asked = give(give(live, "jump", { "slide" => "s3" }, options: own), "open", options: own)
      over = give(asked, "expire", now: 100.0 + 27, options: own)
      expect([over.open?, over.shows?("results")]).to eq([false, up])
      expect(give(asked, "close", options: own).shows?("results")).to be(false)
    end
  end

  it "is set on a question that has no time of its own" do
    asked = give(give(live, "jump", { "slide" => "s4" }), "open")
    expect(asked.opening.deadline).to be_nil
    expect(give(asked, "add_time", { "seconds" => "60" }).opening.deadline).to eq(160.0)
  end
end

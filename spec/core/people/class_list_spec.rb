# frozen_string_literal: true

RSpec.describe Roost::Core::ClassList do
  def paste(text) = described_class.paste(text)

  def present(name, **about)
    @ids = @ids.to_i + 1
    Roost::Core::Student.new(id: @ids, name: name, shown_name: name.split.first, number: "", group: "", time_factor: "1",
                             notes: "", **about)
  end

  def difference(text, present: [], **more) = Roost::Core::ClassListDifference.new(paste(text).value, present: present, **more)

  def states(found) = found.rows.map(&:state)

  it "reads a name a line, turns “Last, First” round, and keeps the row of what it can't use" do
    entries = paste("Ada Lindqvist\r\n\n  Marsh,  Bo \n42\nCleo Okafor\t7K-03\n").value
    expect(entries.map(&:row)).to eq([1, 3, 4, 5])
    expect(entries.map(&:name)).to eq(["Ada Lindqvist", "Bo Marsh", nil, "Cleo Okafor"])
    expect(entries[2].reason).to eq("A student needs a name.")
    expect(entries[3].given).to eq(number: "7K-03")
  end

  it "says in one sentence what to do with five thousand names, with none, and with one that never ends" do
    many = paste(Array.new(5000) { |number| "Student #{number}" }.join("\n"))
    expect(many.reason).to eq("A class has at most 300 students here, and this list is much longer. Split it.")
    expect(paste(Array.new(301) { |number| "S #{number} x" }.join("\n")).reason)
      .to eq("A class has at most 300 students here, and this list has 301. Split it.")
    expect(paste(" \n ").reason).to eq("There is no name in it.")
    expect(paste("#{"e\u0301\u0302\u0303\u0304\u0305" * 200}\nBo").value.map(&:reason))
      .to eq(["The name is too long: 80 characters is the most.", nil])
  end

  it "gives extra time in four steps and nothing between" do
    read = ->(factor) { described_class.fields({ name: "Bo", time_factor: factor }) }
    expect(["1", "1,25", "1.50", "2.0", "", nil].map { |factor| read.call(factor).value&.fetch(:time_factor) })
      .to eq(["1", "1.25", "1.5", "2", "1", "1"])
    expect(read.call("3").reason).to start_with("Extra time is 1,")
  end

  describe "what a list would change" do
    let(:ada) { present("Ada Lindqvist", number: "1") }
    let(:bo) { present("Bo Marsh") }

    it "is nothing, the second time" do
      found = difference("bo marsh\nAda Lindqvist\t1", present: [ada, bo])
      expect(found.changing.map { |row| row.changes.keys }).to eq([[:name]])
      expect(states(difference("Bo Marsh\nAda Lindqvist\t1", present: [ada, bo]))).to eq(%i[same same])
    end

    it "goes by the number first: a new name is the same person" do
      found = difference("Ada Holm\t1\nZeb", present: [ada, bo])
      expect(states(found)).to eq(%i[changed new])
      expect(found.rows.first.to_h).to include(student: ada, changes: { name: "Ada Holm" })
      expect(found.unlisted).to eq([bo])
    end

    it "tells two of one name apart by number, and takes one each where there is none" do
      twins = [present("Bo Marsh", number: "7"), present("Bo Marsh", number: "8")]
      expect(states(difference("Bo Marsh\t8\nBo Marsh\t9\nBo Marsh", present: twins))).to eq(%i[same new same])
      expect(states(difference("Bo Marsh\nBo Marsh", present: [bo]))).to eq(%i[same new])
    end

    it "knows who is in another class, unless that is somebody else of the name" do
      expect(states(difference("Ada Lindqvist\nAda Lindqvist", known: [ada]))).to eq(%i[enters new])
      expect(states(difference("Ada Lindqvist", known: [ada], apart: [1]))).to eq(%i[new])
    end
  end

  it "calls two who are shown alike by their whole names, and the others as shown" do
    called = Roost::Core::StudentName.told_apart([present("Zeb Winslow"), present("Bo Moss"),
                                                  present("Bo Marsh", shown_name: "bo")])
    expect(called.map(&:last)).to eq(["Bo Marsh", "Bo Moss", "Zeb"])
  end

  it "shows the shortest name that is nobody else's" do
    shown = ["Bo Marsh", "Bo Moss", "Bo Marsh", "Ada Lou Moss", "Bo", "Bo"].each_with_object([]) do |name, taken|
      taken << Roost::Core::StudentName.shown(name, taken)
    end
    expect(shown).to eq(["Bo", "Bo M", "Bo Ma", "Ada", "Bo 2", "Bo 3"])
  end
end

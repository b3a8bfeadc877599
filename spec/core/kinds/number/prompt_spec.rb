# frozen_string_literal: true

RSpec.describe Roost::Core::NumberText do
  def read(text, unit: "") = described_class.read(text, unit: unit)

  it "reads numbers as people type them, exactly" do
    { "3,5" => 7 / 2r, "3.5" => 7 / 2r, " -2 " => -2r, "−2" => -2r, "+0.1" => 1 / 10r, "3/4" => 3 / 4r, "1.2e3" => 1200r,
      "1,5×10^3" => 1500r, "1 000" => 1000r, "12 345,6" => 123_456 / 10r, "1,000.5" => 2001 / 2r,
      "1.000,5" => 2001 / 2r, "1.234.567" => 1_234_567r, "6/1,5" => 4r, "1,200" => 1200r, "1 200" => 1200r, "1,20" => 6 / 5r,
      "1.200" => 6 / 5r, "0,125" => 1 / 8r, "1234,567" => 1_234_567 / 1000r, "12,345,678" => 12_345_678r,
      "12,345.5" => 24_691 / 2r }.each do |text, number|
      expect([text, read(text).value]).to eq([text, number])
    end
  end

  it "takes the unit that is asked for, and no other" do
    expect(read("3,5 km", unit: "km").value).to eq(7 / 2r)
    expect(read("3.5KM", unit: "km").value).to eq(7 / 2r)
    expect(read("20 °C", unit: "°C").value).to eq(20r)
    expect(read("3 m", unit: "km").reason).to eq("The unit should be km. Type the number with it, or without a unit.")
    expect(read("3 km")).not_to be_ok
  end

  it "reads a fraction after a whole number" do
    expect([read("3 1/2"), read("-2 3/4"), read("3 1/2 km", unit: "km")].map(&:value)).to eq([7/2r, -11/4r, 7/2r])
    expect([read("3 5/2").reason, read("1 200/3").value]).to eq([described_class::UNREADABLE, 400])
  end

  it "says what to leave out of a number that comes with a unit nobody asked for" do
    expect(read("50%").reason).to eq("Type the number alone, without “%”.")
    expect(read("5 apples").reason).to eq("Type the number alone, without “apples”.")
    expect(read("5 apples", unit: "birds").reason).to start_with("The unit should be birds.")
    expect(read("5 birds", unit: "birds").value).to eq(5)
  end

  it "refuses everything else in one sentence and never breaks" do
    ["abc", "NaN", "Infinity", "1e999", "1/0", "--3", "3//4", "1e", "0x10", "٣", "1" * 61, ["3"], {}, 3, "1.2.3/",
     "1,2,3", "1,20,300", "1.200,300.5", "∞"].each do |raw|
      expect([raw, read(raw).ok?]).to eq([raw, false])
      expect(read(raw).reason).to match(/\A[A-Z].*\.\z/)
    end
    expect(read("").value).to be_nil
  end

  it "shows what it read, and reads what it shows" do
    PropCheck.forall(PropCheck::Generators.integer, PropCheck::Generators.choose(1..1000)) do |above, below|
      number = Rational(above, below).round(5)
      expect(read(described_class.show(number)).value).to be_within(1r / (10**6)).of(number)
    end
  end
end

RSpec.describe Roost::Core::Tallies::Spread do
  def of(*numbers) = described_class.of(numbers.map { |number| Rational(number.to_s) })

  it "gives mean, median and quartiles of type 7" do
    spread = of(1, 2, 3, 4, 10)
    expect([spread.mean, spread.median, spread.q1, spread.q3]).to eq([4, 3, 2, 4])
    expect(of(1, 2, 3, 4).to_h).to include(median: 5 / 2r, q1: 7 / 4r, q3: 13 / 4r)
  end

  it "finds what is far off: outside one and a half of the middle half" do
    expect(of(1, 2, 3, 4, 10).outliers).to eq([10])
    expect(of(1, 2, 3, 4, 7).outliers).to be_empty
    expect(of(5, 5, 5, 5, 6).outliers).to eq([6])
  end

  it "is nothing of no numbers, and whole of one" do
    expect(described_class.of([])).to be_nil
    expect(of(7).to_h).to include(mean: 7, outliers: [], axis: [6, 7, 8])
  end

  it "makes 5 to 20 bins with friendly edges that hold every number once" do
    number = PropCheck::Generators.integer
    PropCheck.forall(PropCheck::Generators.array(number, min: 41, max: 120)) do |numbers|
      next if numbers.uniq.length < 2

      spread = described_class.of(numbers.map(&:to_r))
      expect(spread.bins.sum(&:count)).to eq(numbers.length)
      expect(spread.bins.length).to be_between(5, 20)
      step = spread.bins.first.to - spread.bins.first.from
      lead = step / (10r**Math.log10(step.to_f).floor)
      expect([1r, 2r, 5r / 2, 5r]).to include(lead)
      expect(spread.bins.map { |bin| bin.from % step }).to all(eq(0))
    end
  end

  it "never has more than 20 bins, also where they don't begin at the least number" do
    bins = of(0.5, 20.5, *([10] * 40)).bins
    expect([bins.length, bins.first.from, bins.last.to, bins.sum(&:count)]).to eq([11, 0, 22, 42])
  end

  it "has an axis of round ticks around all numbers" do
    expect(of(3, 47, 12).axis).to eq([0, 10, 20, 30, 40, 50])
    expect(of(-1.5, 0.2).axis.minmax).to eq([-1.5r, 0.5r])
  end
end

RSpec.describe Roost::Core::Kinds::Number::Prompt do
  def number(**settings) = described_class.new(id: "p1", settings: settings.transform_keys(&:to_s))

  def mark(prompt, text) = prompt.mark(prompt.read({ "number" => [text] }).value)

  it "marks a value within its tolerance, absolute or in percent, and a closed range" do
    exact = number(value: "3.5")
    expect([mark(exact, "3,5"), mark(exact, "7/2"), mark(exact, "3.51")]).to eq([1, 1, 0])
    loose = number(value: "3.5", tolerance: "0.1")
    expect([mark(loose, "3.4"), mark(loose, "3.6"), mark(loose, "3.61")]).to eq([1, 1, 0])
    percent = number(value: "-200", tolerance: "5", percent: true)
    expect([mark(percent, "-210"), mark(percent, "-190"), mark(percent, "-211")]).to eq([1, 1, 0])
    range = number(key: "range", low: "3", high: "4")
    expect([mark(range, "3"), mark(range, "4"), mark(range, "4.0001")]).to eq([1, 1, 0])
  end

  it "keeps a tenth a tenth" do
    tenth = number.edited({ "value" => "0,3", "tolerance" => "0,1" }).value
    expect([tenth.settings["value"], mark(tenth, "0.4"), mark(tenth, "0.2")]).to eq(["0.3", 1, 1])
  end

  it "says what is missing, and refuses a key that makes no sense" do
    expect(number.problems).to eq(["no key yet"])
    expect(number(poll: true).problems).to be_empty
    expect(number.edited({ "key" => "range", "low" => "5",
                           "high" => "4" }).reason).to eq("The range has to end above where it begins.")
    expect(number.edited({ "value" => "3", "tolerance" => "-1" }).reason).to eq("A tolerance can't be below zero.")
    expect(number.edited({ "value" => "about three" }).reason).to start_with("The key: That is not a number")
  end

  it "tallies what was answered, with the key as a band" do
    prompt = number(value: "4", tolerance: "1", unit: "km")
    values = ["3", "4,5 km", "9", ""].map { |text| prompt.read({ "number" => [text] }).value }
    tally = prompt.tally(values)
    expect(tally.to_h).to include(answered: 3, right: 2, band: [3, 5])
    expect([prompt.plain(values[1]), prompt.blank_answer?(values[3]), prompt.mark(values[0])]).to eq(["4.5 km", true, 1])
  end

  it "answers as a simulated class would: the able more often right" do
    prompt = number(value: "40", tolerance: "4")
    random = Random.new(7)
    students = Roost::Core::Practice::Roster.students(400, seed: 3)
    able, others = students.partition { |student| student.ability.positive? }
    share = ->(group) { group.count { |student| prompt.mark(prompt.simulate(student, random)) == 1 } / group.length.to_f }
    expect(share.call(able)).to be > share.call(others) + 0.15
  end

  it "reads whatever a device sends without breaking" do
    junk = [nil, [], {}, "x", { "number" => nil }, { "number" => [nil] }, { "number" => [["1"]] }, { "number" => ["\xFF"] },
            { "number" => ["9" * 10_000] }, { "other" => ["1"] }]
    junk.each { |raw| expect(number.read(raw)).to be_a(Roost::Core::Reading) }
    PropCheck.forall(PropCheck::Generators.string) { |text| number.read({ "number" => [text] }) }
  end

  it "goes into a sheet and back" do
    [number(value: "3.5", tolerance: "0.1", unit: "km"), number(value: "200", tolerance: "5", percent: true),
     number(key: "range", low: "3", high: "4.5"), number(poll: true), number].each do |prompt|
      back = through_sheet(prompt, { "poll" => prompt.settings["poll"] ? "1" : "0" }).value
      expect(back.band).to eq(prompt.band)
      expect(back.unit).to eq(prompt.unit)
    end
  end
end

# frozen_string_literal: true

require "tempfile"

RSpec.describe Roost::Exchange::QuestionSheet do
  let(:sheet) { described_class.new(->(_file) { true }) }

  def written(bytes, extension = ".csv")
    Tempfile.create(["sheet", extension], binmode: true) do |file|
      file.write(bytes)
      file.flush
      yield file.path
    end
  end

  def read(bytes, extension = ".csv") = written(bytes, extension) { |path| sheet.read(path, mark: "t") }

  # The same workbook as a program saves it: with the value beside the formula.
  def with_value(bytes, value)
    Zip::OutputStream.write_buffer do |out|
      Zip::File.open_buffer(bytes) do |zip|
        zip.each do |entry|
          out.put_next_entry(entry.name)
          out.write(entry.get_input_stream.read.sub(%r{</f>(?:<v\s*/>|<v></v>)?}, "</f><v>#{value}</v>"))
        end
      end
    end.string
  end

  def csv(*rows, separator: ",") = rows.map { |row| CSV.generate_line(row, col_sep: separator) }.join

  # Everything a question can have.
  let(:questions) do
    picture = Roost::Core::Picture.new(file: "#{"a" * 64}.png", width: 40, height: 30, alt: "A beak, short and thick").freeze
    video = Roost::Core::Clip.new(file: "#{"b" * 64}.mp4", captions: "#{"c" * 64}.vtt", from: 65, to: 90).freeze
    full = choice(keys: %w[o1 o3], several: true, partial: true, shuffle: true, time_limit: 30, points: 40, explanation: "Food",
                  hint: "Flies", subtopics: %w[food winter], standards: ["SCI.7.2"], bloom: "analyse", depth: 3, practice: true,
                  may_change: false, difficulty: 0.8).picturing("o2", picture).value
    [slide("s1", heading: "=Who stays?", prompt: full, pictures: [picture], notes: "- look\n- wait", text: "More; than, one"),
     slide("s2", heading: "", arrangement: "full", pictures: [picture],
prompt: choice(lettered: true, texts: ["", "", ""], keys: ["o3"])),
     slide("s3", heading: "Seen one?", prompt: choice(texts: %w[Yes No], poll: true), for_class: false, title: "Poll"),
     slide("s4", heading: "Why?", prompt: writing(size: "line", word_limit: 12, samples: ["Food, mostly.", "Cold"]),
video: video),
     slide("s5", heading: "Draw", prompt: sketch(over_picture: true), web: "https://marsh.example/", arrangement: "columns",
aside: "b"),
     slide("s6", heading: "Twelve", prompt: choice(texts: (1..12).map { |number| "Option #{number}" }))]
  end

  # A slide without what is new each time: its ids.
  def bare(slide)
    made = { "made" => nil }
    slide.with(id: "x", rev: 1, prompt: slide.prompt.class.new(id: "x", settings: slide.prompt.settings.merge(made))).to_document
  end

  it "gives a lesson's questions out and takes them back without changing anything" do
    { ".csv" => sheet.csv(questions), ".xlsx" => sheet.xlsx(questions) }.each do |extension, bytes|
      found = read(bytes, extension).value
      expect(found.rows.map(&:reason).compact).to be_empty
      expect(found.usable.map { |slide| bare(slide) }).to eq(questions.map { |slide| bare(slide) })
    end
  end

  it "reads comma, semicolon and tab, UTF-8 with and without mark, and Windows-1252" do
    rows = [["Question", "Option A", "Option B", "Right"], ["Où vont les grèbes ?", "Été", "Hiver", "B"]]
    texts = [",", ";", "\t"].map { |separator| csv(*rows, separator: separator) }
    texts += ["\uFEFF#{texts[0]}", texts[1].encode("Windows-1252"), texts[0].gsub("\n", "\r\n")]
    texts.each do |text|
      found = read(text).value.usable.first
      expect([found.heading, found.prompt.options.map(&:text),
              found.prompt.row_right]).to eq(["Où vont les grèbes ?", %w[Été Hiver], "B"])
    end
  end

  it "names every row that can't be used with its reason, and keeps the others" do
    found = read(csv(["Question", "Option A", "Option B", "Right", "Time", "Kind", "Colour"], %w[Good a b A 20],
                     ["No such", "a", "b", "D"],
                     ["", "a", "b", "A"], %w[One a], %w[Slow a b A 9999], ["Sum", "=1+1", "b", "A"],
                     ["Odd", "a", "b", "", "", "riddle"], ["# a note"], [], ["Essay", "", "", "", "", "Writing"])).value
    expect(found.rows.map { |row| [row.number, row.reason] })
      .to eq([[2, nil], [3, "“Right” names D, which isn't an option"], [4, "it has no question"],
              [5, "it has fewer than two options"], [6, "The time limit can be 5 to 600 seconds, or empty."],
              [7, "there is a formula in “Option A”; put its value there"],
              [8, "there is no kind “riddle”"], [11, nil]])
    expect(found.unknown).to eq(["Colour"])
  end

  it "takes its own pattern, in which the explanations and the example are left out" do
    expect(read(sheet.pattern_csv).reason).to eq("has no questions below its first row.")
    filled = sheet.pattern_csv + CSV.generate_line(["Mine", "", "a", "b", "", "", "", "", "B"])
    expect(read(filled).value.usable.map(&:heading)).to eq(["Mine"])
    expect(read(sheet.pattern_xlsx, ".xlsx").reason).to eq("has no questions below its first row.")
  end

  it "refuses what is no sheet, too long, or has nothing to ask, in one sentence" do
    expect(read("\x00\x01\x02binary").reason).to start_with("could not be read as a sheet.")
    expect(read("PK\x03\x04not really a zip", ".xlsx").reason).to start_with("could not be read as a sheet.")
    expect(read("a,b\n1,2\n").reason).to eq("has no column “Question”. Begin with the pattern.")
    expect(read("").reason).to eq("has no column “Question”. Begin with the pattern.")
    expect(read(csv(["Question", "Option A", "Option B"],
                    *([%w[Why a b]] * 501))).reason).to eq("has more than 500 questions. Split it.")
  end

  it "refuses an XLSX that would unpack to more than a sheet can be, and other zips" do
    bomb = Zip::OutputStream.write_buffer do |zip|
      zip.put_next_entry("xl/worksheets/sheet1.xml")
      70.times { zip.write("0" * 1_048_576) }
    end.string
    expect(bomb.bytesize).to be < 200_000
    expect(read(bomb, ".xlsx").reason).to start_with("unpacks to far more")
    other = Zip::OutputStream.write_buffer { |zip| zip.put_next_entry("letter.txt") && zip.write("hello") }.string
    expect(read(other, ".xlsx").reason).to start_with("could not be read as a sheet.")
  end

  it "refuses rows with formulas in XLSX, and files that are not kept here" do
    book = Axlsx::Package.new
    book.workbook.add_worksheet do |page|
      page.add_row(["Question", "Option A", "Option B"])
      page.add_row(["Sum", "=1+1", "3"], escape_formulas: false)
    end
    unworked = book.to_stream.read
    expect(read(unworked, ".xlsx").reason).to start_with("has formulas that were never worked out.")
    expect(read(with_value(unworked, "2"), ".xlsx").value.rows.map(&:reason))
      .to eq(["there is a formula in “Option A”; put its value there"])
    stranger = described_class.new(->(_file) { false })
    reading = written(sheet.csv(questions.first(1))) { |path| stranger.read(path, mark: "t") }
    expect(reading.value.rows.first.reason).to eq("the file aaaaaaaaaaaa… isn't kept here")
  end
end

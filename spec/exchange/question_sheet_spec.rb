# frozen_string_literal: true

require "csv"

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

  describe "texts that look like something else" do
    odd = ["= frogs", "=1+1", "#1 of all", "'quoted", "'=so", "''#", "a, b; c", "Before / after", "°C", 'say "so"', "+ 1", "-2",
           "@x", "x2 reeds", "12 reeds", "a = b", "poll", "difficulty 3", "E=mc2", "“curly”", "A", "5 options", "ünd", "\"", "/",
           "in km"].freeze
    kinds = Roost::Core::Kinds.all

    # A question of each kind with texts wherever it can have them.
    define_method(:question) do |kind, texts|
      text = texts.cycle
      plain = -> { text.next.tr(",;", "..") }
      form = { "explanation" => text.next, "hint" => text.next, "subtopics" => "#{plain.call}, #{plain.call} two", "poll" => "0",
               **own(kind, text, plain) }
      kind.new(id: "p", settings: own_settings(kind, text)).edited(form).value
    end

    def own_settings(kind, text)
      case kind.kind
      when "choice" then { "options" => (1..4).map { |place| { "id" => "o#{place}", "text" => "" } }, "made" => 4 }
      when "match" then { "rows" => Roost::Core::Kinds::Match::Rows.of([["", ""], ["", ""], ["", ""], [nil, ""]]), "made" => 4 }
      when "writing", "words" then { "samples" => [text.next[0, 40], text.next[0, 40]] }
      else {}
      end
    end

    def own(kind, text, plain)
      case kind.kind
      when "choice"
        { "option_ids" => %w[o1 o2 o3 o4], "option_texts" => [text.next, text.next, text.next, ["", text.next].sample],
          "keys" => %w[o1 o2] }
      when "order" then { "item_ids" => %w[i1 i2 i3 i4], "item_texts" => [text.next, text.next, text.next, ""] }
      when "match"
        { "row_ids" => %w[m1 m2 m3 m4], "lefts" => [text.next, text.next, "", ""],
          "rights" => [text.next, "", text.next, text.next] }
      when "gaps"
        others = Array.new(12) { |number| "#{plain.call} #{number}" }
        { "text" => "#{text.next} [[#{text.next.tr("|[]", "...")}]] #{text.next}", "distractors" => others.join(","),
          "bank" => "1" }
      when "number" then { "unit" => text.next, "key" => "value", "value" => "3.5" }
      when "writing" then { "boxes" => [plain.call, "#{plain.call} too"].join(","), "size" => "paragraph" }
      when "spots"
        {
          "regions" => JSON.generate([{ id: "r1", shape: "circle", numbers: [0.5, 0.5, 0.1, 0.1], wanted: 1,
                                        name: plain.call }]), "most" => "2"
        }
      when "posts" then { "columns" => [plain.call, "#{plain.call} 2"].join(",") }
      else {}
      end
    end

    kinds.each do |kind|
      it "come back unchanged from a #{kind.label.downcase}, as CSV and as XLSX" do
        random = Random.new(4)
        asked = Array.new(30) do |number|
          texts = odd.shuffle(random: random)
          slide("s#{number}", heading: texts[0], text: texts[1], notes: texts[2], title: texts[3],
prompt: question(kind, texts.drop(4)))
        end
        { ".csv" => sheet.csv(asked), ".xlsx" => sheet.xlsx(asked) }.each do |extension, bytes|
          found = read(bytes, extension).value
          expect(found.rows.filter_map(&:reason)).to be_empty
          found.usable.zip(asked).each { |back, original| expect(bare(back)).to eq(bare(original)) }
          expect(found.usable.length).to eq(30)
        end
      end
    end

    it "read as people write them, without quotes too" do
      rows = [["Question", "Kind", "Option A", "Option B", "Option C", "Right", "Rules"],
              ["Warm", "number", "", "", "", "20", "in °C"],
              ["Eats", "match", "Heron = fish", "Swift = flies", "= frogs", "", ""],
              ["Think", "writing", "", "", "", "", "boxes I saw / I think"], ["# left out", "", "", "", "", "", ""],
              ["Two", "", "a", "b", "c", "A B", "any one"]]
      found = read(csv(*rows)).value
      expect(found.rows.map(&:reason)).to eq([nil] * 4)
      expect([found.usable[0].prompt.unit, sheet_row(found.usable[1].prompt).options.last, found.usable[2].prompt.boxes,
              found.usable[3].prompt.several?]).to eq(["°C", "frogs", ["I saw", "I think"], false])
    end
  end

  it "reads comma, semicolon and tab, UTF-8 with and without mark, and Windows-1252" do
    rows = [["Question", "Option A", "Option B", "Right"], ["Où vont les grèbes ?", "Été", "Hiver", "B"]]
    texts = [",", ";", "\t"].map { |separator| csv(*rows, separator: separator) }
    texts += ["\uFEFF#{texts[0]}", texts[1].encode("Windows-1252"), texts[0].gsub("\n", "\r\n")]
    texts.each do |text|
      found = read(text).value.usable.first
      expect([found.heading, found.prompt.options.map(&:text),
              sheet_row(found.prompt).right]).to eq(["Où vont les grèbes ?", %w[Été Hiver], "B"])
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
    expect(read("a,b\n1,2\n").reason).to eq("has no column “Question”. Begin with the template.")
    expect(read("").reason).to eq("has no column “Question”. Begin with the template.")
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

  it "takes what formulas in XLSX came to, names rows where that isn't there, and refuses files that are not kept here" do
    book = Axlsx::Package.new
    book.workbook.add_worksheet do |page|
      page.add_row(["Question", "Option A", "Option B"])
      page.add_row(["Sum", "=1+1", "3"], escape_formulas: false)
    end
    unworked = book.to_stream.read
    expect(read(unworked, ".xlsx").value.rows.map(&:reason)).to eq(["there is a formula in “Option A”; put its value there"])
    expect(sheet_row(read(with_value(unworked, "2"), ".xlsx").value.usable.first.prompt).options).to eq(%w[2 3])
    stranger = described_class.new(->(_file) { false })
    reading = written(sheet.csv(questions.first(1))) { |path| stranger.read(path, mark: "t") }
    expect(reading.value.rows.first.reason).to eq("the file aaaaaaaaaaaa… isn't kept here")
  end
end

# frozen_string_literal: true

# What every kind has to do, whichever kinds there are.
RSpec.describe "Every kind of question" do
  include Roost::Web::Rendering

  # The demo lessons have one of each.
  def self.demo
    files = %w[birds-on-the-move voices-of-the-marsh].map { |name| File.join(Roost::Settings::ROOT, "demo/lessons/#{name}.yml") }
    files.flat_map { |file| YAML.safe_load_file(file)["slides"].filter_map { |slide| slide["prompt"] } }
  end

  def self.samples(kind)
    demo.select { |source| source["kind"] == kind.kind }.map { |source| kind.new(id: "p1", settings: source.except("kind")) }
  end

  def part(name, prompt, **locals)
    partial("kinds/#{prompt.kind}/#{name}", prompt: prompt, slide: slide("s1", prompt: prompt), **locals)
  end

  # What a browser would send of the fields in this form: the part named prompt.
  def sent(html)
    fields = Nokogiri::HTML5.fragment(html).css("input[name], textarea[name], select[name]")
    said = fields.select { |field| !%w[checkbox radio].include?(field["type"]) || field["checked"] }
    pairs = said.map do |field|
      chosen = field.name == "select" ? (field.at("option[selected]") || field.at("option"))["value"] : nil
      [field["name"], chosen || (field.name == "textarea" ? field.text : field["value"])]
    end
    Rack::Utils.parse_nested_query(URI.encode_www_form(pairs))["prompt"]
  end

  def answers(prompt, count)
    random = Random.new(5)
    Roost::Core::Practice::Roster.students(count, seed: 8).map { |student| prompt.simulate(student, random) }
  end

  Roost::Core::Kinds.all.each do |kind|
    describe kind.label do
      prompts = samples(kind)

      it "is in the demo lessons" do
        expect(prompts).not_to be_empty
      end

      it "is asked, shown and edited, new and filled in" do
        [kind.new(id: "p0", settings: {}), *prompts].each do |prompt|
          expect(partial("kinds/#{kind.kind}/editor", prompt: prompt, slide: slide("s1"), field: "f")).to include("prompt[")
          expect(part("ask", prompt, order: nil)).to be_a(String)
          [nil, answers(prompt, 1).first].each do |value|
            expect(part("seat", prompt, value: value, order: 3)).to include('name="')
          end
        end
      end

      it "can be corrected after it was asked, if it can have a key; sent as it stands, the form changes nothing" do
        keyable = prompts.select { kind.keyable? }
        expect(keyable.empty?).to be(!kind.keyable?)
        keyable.each do |prompt|
          pictured = Roost::Core::Picture.new(file: "a.png", width: 4, height: 3, alt: "").freeze
          html = partial("kinds/#{kind.kind}/key", prompt: prompt, slide: slide("s1", pictures: [pictured]), field: "k") +
                 partial("prompts/poll", prompt: prompt, field: "k")
          expect(prompt.corrected(sent(html)).value).to eq(prompt)
        end
      end

      it "stands on a student's tile at the Desk, and whatever lights in its chart lights somebody, but for a bar of nobody" do
        prompts.product([true, false], [5, 60]).each do |prompt, open, count|
          given = answers(prompt, count)
          tally = prompt.tally(given)
          chart = part("result", prompt, tally: tally, open: open, key: true, brief: false, look: { "lit" => true })
          parts = given.flat_map { |value| prompt.tally_parts(value, tally) }
          page = Nokogiri::HTML5.fragment(chart)
          page.css(".bar-row").each { |row| row.remove if row.at_css(".bar-figure strong")&.text == "0" }
          expect(page.css("[data-part]").map { |each| each["data-part"] } - parts).to eq([])
          expect([given.map { |value| prompt.short(value) }, parts]).to all(all(be_a(String)))
          expect(parts.grep(/\s/)).to eq([])
        end
      end

      it "stands there in a few letters, or the tile has a second line from the start" do
        prompts.reject(&:short_in_words?).each do |prompt|
          expect(answers(prompt, 60).map { |value| prompt.short(value) }).to all(match(/\A.{0,7}\z/))
        end
      end

      it "shows no answer, one, thirty and three hundred, with and without its key" do
        prompts.product([0, 1, 30, 300]).each do |prompt, count|
          tally = prompt.tally(answers(prompt, count))
          [[true, false], [true, true], [false, true]].each do |key, brief|
            way = kind.ways.keys.last
            given = brief ? prompt.page(prompt.for_class(tally), way, 0) : tally
            html = part("result", prompt, tally: given, open: brief && !key, key: key, brief: brief,
                                          look: { "way" => way, "opacity" => 30 })
            expect(Nokogiri::HTML5.fragment(html).errors).to be_empty
            expect(html.gsub(/ (?:id|data-[a-z-]+)="[^"]*"/, "")).not_to match(/\b(?:NaN|Infinity)\b/) # ids are drawn by lot
            expect(html.strip).not_to be_empty
          end
        end
      end

      it "comes to the same when answers come, change and go one by one" do
        prompts.each do |prompt|
          values = answers(prompt, 24).each_with_index.to_h { |value, seat| [seat, value] }
          steps = [values.first(9).to_h, values.first(10).to_h, values.first(10).to_h.merge(3 => values[20]), values.except(4, 5)]
          grown = steps.inject(nil) { |before, given| prompt.gathered(given, before: before) }
          looks = [grown, prompt.gathered(steps.last)].map do |tally|
            # A word may stand elsewhere: it keeps the place it had.
            part("result", prompt, tally: tally, open: false, key: true, brief: false, look: {})
              .gsub(/(<text data-word="[^"]*") x="[^"]*" y="[^"]*"/, '\\1')
          end
          expect(looks.first).to eq(looks.last)
        end
      end

      it "puts everything on one page or another of the class screen, and nothing twice" do
        prompts.product([nil, *kind.ways.keys], [0, 1, 30, 300]).each do |prompt, way, count|
          tally = prompt.for_class(prompt.tally(answers(prompt, count)))
          pages = prompt.pages(tally, way)
          texts = Array.new(pages) do |number|
            html = part("result", prompt, tally: prompt.page(tally, way, number), open: false, key: false, brief: true,
                                                                             look: { "way" => way, "opacity" => 30 })
            Nokogiri::HTML5.fragment(html).css(".post, .text-lead, .drawing").map(&:to_s)
          end
          whole = part("result", prompt, tally: tally, open: false, key: false, brief: true,
                                         look: { "way" => way, "opacity" => 30 })
          all = Nokogiri::HTML5.fragment(whole).css(".post, .text-lead, .drawing").map(&:to_s)
          numbered = ->(list) { list.map { |html| html.sub(/Sketch \d+/, "") }.sort }
          expect(numbered.call(texts.flatten)).to eq(numbered.call(all))
          expect(texts.map(&:length).max.to_i).to be <= 24
        end
      end

      it "shows one answer, in words too, and marks it between nothing and all" do
        prompts.each do |prompt|
          answers(prompt, 30).each do |value|
            review = Nokogiri::HTML5.fragment(part("review", prompt, value: value, seat_id: 3, width: 400))
            expect([review.errors, review.to_s.strip.empty?]).to eq([[], false])
            expect(prompt.plain(value)).not_to be_empty
            expect(prompt.mark(value)).to be_nil.or(be_between(0, 1))
          end
        end
      end

      it "reads what it wrote, and refuses a thousand bad bodies without breaking" do
        random = Random.new(11)
        1000.times do |turn|
          prompt = prompts[turn % prompts.length]
          reading = prompt.read(Bodies.junk(random))
          expect(reading).to be_a(Roost::Core::Reading)
          expect(reading.ok? || reading.reason.match?(/\A\S.*[.]\z/)).to be(true)
          JSON.generate(reading.value) if reading.ok?
        end
      end

      it "goes into a sheet of questions and comes back the same" do
        sheet = Roost::Exchange::QuestionSheet.new(->(_) { true })
        slides = prompts.map.with_index { |prompt, place| slide("s#{place}", prompt: prompt.copy("p#{place}")) }
        Tempfile.create(["kinds", ".csv"]) do |file|
          file.write(sheet.csv(slides))
          file.flush
          found = sheet.read(file.path, mark: "t").value
          expect(found.rows.map(&:reason).compact).to be_empty
          found.usable.zip(slides).each do |back, original|
            values = answers(original.prompt, 20)
            expect(values.map { |value| back.prompt.mark(value) }).to eq(values.map { |value| original.prompt.mark(value) })
          end
        end
      end
    end
  end

  it "lets nothing that a device sends break the page of another" do
    kept = Roost::Core::Kinds.all.flat_map { |kind| self.class.samples(kind) }.to_h { |prompt| [prompt, []] }
    PropCheck.forall(Bodies.any) do |body|
      kept.each do |prompt, values|
        reading = prompt.read(body)
        next expect(reading.reason).to match(/\A\S.*[.]\z/) unless reading.ok?

        value = JSON.parse(JSON.generate(reading.value))
        values << value unless prompt.blank_answer?(value)
      end
    end
    kept.each do |prompt, values|
      expect(values.filter_map { |value| prompt.mark(value) }).to all(be_between(0, 1))
      reviews = values.map { |value| part("review", prompt, value: value, seat_id: nil, width: nil) }
      result = part("result", prompt, tally: prompt.tally(values), open: false, key: true, brief: false, look: {})
      expect([*reviews, result].join).not_to match(/<script|NaN|Infinity/)
      expect(values.map { |value| prompt.plain(value) }).to all(be_a(String))
    end
  end
end

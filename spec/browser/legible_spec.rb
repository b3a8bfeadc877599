# frozen_string_literal: true

# The class screen is read from eight metres: no type under 20 pixels at 1280 wide, however much there is to read, and
# nothing is ever cut off.
RSpec.describe "The class screen, from the back row" do
  include Legible

  let(:account) { teacher }
  let(:screen) { window(:screen) }

  def demo(name) = YAML.safe_load_file(File.join(Roost::Settings::ROOT, "demo/lessons/#{name}.yml"))["slides"]

  def give(session, slide, seats)
    random = Random.new(4)
    seats.each do |student, seat_id|
      Roost::Store::Answers.new.save(session_id: session.id, seat_id: seat_id, slide_id: slide.id, final: true, save_no: 1,
                                     value: longest(slide.prompt, student, random), keyed: slide.prompt.keyed?,
                                     save_id: SecureRandom.uuid)
    end
  end

  def longest(prompt, student, random) = prompt.simulate(student, random)

  def sized(width, height)
    screen.driver.browser.execute_cdp("Emulation.setDeviceMetricsOverride", width: width, height: height, deviceScaleFactor: 1,
                                                                            mobile: false)
  end

  # Until the class screen shows what its page would now.
  def swapped
    same = <<~JS
      const done = arguments[0];
      const words = (from) => from.querySelector(".screen-stage").textContent.replace(/\\s+/g, " ");
      const page = (text) => new DOMParser().parseFromString(text, "text/html");
      fetch(location.pathname).then((answer) => answer.text()).then((text) => done(words(page(text)) === words(document)));
    JS
    sleep 0.05 until screen.evaluate_async_script(same)
  end

  def let_through(session, slide)
    return unless slide.prompt.board?

    keys = moment(session).tally(slide.id).waiting.map(&:key)
    command(session, "curate", slide: slide.id, what: "approve", cards: keys.join("\n"))
  end

  # Shows each question, and what so many gave, and says what is too small or cut off.
  # @yield once the page is there
  def faults(slides, least, many: 24)
    session = kept_session(account, Roost::Core::Lesson.new(title: "Marsh", slides: slides))
    seats = Roost::Core::Practice::Roster.students(many, seed: 5).to_h do |student|
      [student, Roost::Store::Seats.new.create(session.id, student.name).first]
    end
    command(session, "begin")
    screen.visit "/screen/#{session.screen_key}"
    yield if block_given?
    slides.flat_map do |slide|
      command(session, "jump", slide: slide.id)
      expect(screen).to have_css(".screen-stage h1", text: slide.heading)
      asked = look(slide, "asked", least)
      give(session, slide, seats)
      put_up(session, slide)
      [asked, look(slide, "shown", least)].compact
    end
  end

  # What was given, and what is right, as the class gets it.
  def put_up(session, slide)
    let_through(session, slide)
    command(session, "close")
    command(session, "show", what: "results")
    command(session, "show", what: "key") if slide.prompt.keyed?
    # What is right goes up once the grace after answering is over.
    eventually { moment(session).state.shows?("key") } if slide.prompt.keyed?
    expect(screen).to have_css(".screen-stage.is-result", wait: 10)
    swapped
  end

  def look(slide, words, least)
    (size, text), cut = smallest(screen)
    "#{slide.prompt.kind} #{words}: #{size} px #{text}, #{cut} cut off" if size < least - 0.1 || cut > 1
  end

  it "has no type under 20 pixels in any kind of question, with 24 answers" do
    sources = %w[birds-on-the-move voices-of-the-marsh].flat_map { |name| demo(name) }.select { |source| source["prompt"] }
    chosen = sources.uniq { |source| source["prompt"]["kind"] } | sources.select { |source| source["prompt"]["sure"] }
    slides = chosen.each_with_index.map do |source, place|
      settings = source["prompt"].except("kind", "time_limit")
      prompt = Roost::Core::Kinds.named(source["prompt"]["kind"]).new(id: "p#{place}", settings: settings)
      slide("s#{place}", heading: source["heading"], text: source["text"].to_s, prompt: prompt)
    end
    expect(faults(slides, 20)).to be_empty
  end

  # How large heading and text are, in pixels, how much of the height is filled, and what is cut off.
  filled = <<~JS
    (() => {
      const stage = document.querySelector(".screen-stage");
      const parts = [...stage.querySelectorAll(".slide-heading, .slide-words .content, .slide-picture, .slide-behind")]
        .map((part) => part.getBoundingClientRect()).filter((box) => box.height);
      const size = (what) => Math.round(parseFloat(getComputedStyle(stage.querySelector(what) ?? stage).fontSize));
      const tall = Math.max(...parts.map((box) => box.bottom)) - Math.min(...parts.map((box) => box.top));
      return [size(".slide-heading"), size(".content"), tall / stage.clientHeight, stage.scrollHeight - stage.clientHeight];
    })()
  JS

  define_method(:filled) do |slide|
    session = kept_session(account, Roost::Core::Lesson.new(title: "Marsh", slides: [slide]))
    command(session, "begin")
    screen.visit "/screen/#{session.screen_key}"
    screen.evaluate_async_script(Legible::FITTED)
    screen.evaluate_script(filled)
  end

  it "is filled by a slide that asks nothing: type as large as there is room for, and nothing cut off" do
    picture = Roost::Operations::TakeDrawing.new.call(account, "heron").value
    few = "The heron waits."
    many = ("The marsh fills in autumn and empties in spring, and every bird has its own reason to come or to go. " * 7).strip
    heading, = filled(slide("s1", heading: "Look"))
    expect(heading).to be_within(1).of(88)
    heading, text, _tall, cut = filled(slide("s1", heading: "Look", text: few))
    expect([heading, text, cut]).to match([be_within(1).of(88), be_within(1).of(64), be <= 1])
    _heading, text, tall, cut = filled(slide("s1", heading: "Look", text: many))
    expect([text, tall, cut]).to match([be >= 24, be > 0.66, be <= 1])
    { "beside" => few, "words" => few, "full" => "", "behind" => few }.each do |arrangement, words|
      shown = filled(slide("s1", heading: "Look", text: words, arrangement: arrangement, pictures: [picture]))
      expect([arrangement, shown[2], shown[3]]).to match([arrangement, be > 0.66, be <= 1])
    end
  end

  # The smallest type of the lobby, how far anything of it reaches over its place, and what is cut short.
  lobby = <<~JS
    (() => {
      const place = document.querySelector(".screen-lobby-names");
      const foot = document.querySelector(".screen-foot").getBoundingClientRect();
      const words = [...document.querySelectorAll(".screen-lobby *")].filter((part) => [...part.childNodes]
        .some((node) => node.nodeType === 3 && node.textContent.trim()) && part.checkVisibility());
      const boxes = words.map((part) => part.getBoundingClientRect());
      return [Math.min(...words.map((part) => parseFloat(getComputedStyle(part).fontSize))),
        Math.max(place.scrollHeight - place.clientHeight, foot.bottom - innerHeight, ...boxes.map(({ bottom }) => bottom - foot.top),
          ...boxes.map(({ right }) => right - innerWidth)),
        words.filter((part) => part.scrollWidth > part.clientWidth + 1 && getComputedStyle(part).display !== "inline").length];
    })()
  JS

  describe "in the lobby" do
    after { sized(1280, 800) }

    { "forty names" => {}, "forty names in eight teams" => { teams: "dealt", team_count: "8" } }.each do |what, options|
      it "fits #{what} on every screen, touches no edge, and keeps its type" do
        session = kept_session(account, **options)
        (1..40).each { |number| Roost::Operations::JoinSession.new.call(session.code, "Wren Calloway-#{number}") }
        screen.visit "/screen/#{session.screen_key}"
        expect(screen).to have_text("Calloway-40")
        sizes = [[1024, 768], [1280, 720], [1920, 1080], [3840, 2160], [1080, 1920]]
        measured = sizes.map do |width, height|
          sized(width, height)
          screen.evaluate_async_script(Legible::FITTED)
          least, over, short = screen.evaluate_script(lobby)
          [width, (least * 1280 / [width, height].max).round(1), over.round(1), short]
        end
        expect(measured).to match(sizes.map { |width, _| [width, be >= 20, be <= 1, 0] })
      end
    end
  end

  it "has none under 20 where a question holds the most it can, and cuts nothing off" do
    names = ("A".."L").map { |letter| "#{letter}-marsh bird" }
    options = names.each_with_index.map do |name, place|
      { "id" => "o#{place + 1}", "text" => "#{name} gathers on the wire before the first frost" }
    end
    rows = names.each_with_index.map do |name, place|
      { "id" => "m#{place + 1}", "left" => name, "right" => "what the #{name} eats in winter" }
    end
    items = names.each_with_index.map { |name, place| { "id" => "i#{place + 1}", "text" => "#{name} comes back" } }
    gaps = (1..20).map { |number| "In month #{number} they [[fly#{number}|go#{number}]]" }.join(". ")
    most = { "Choice" => { "options" => options }, "Match" => { "rows" => rows }, "Order" => { "items" => items },
             "Gaps" => { "text" => gaps } }
    slides = most.each_with_index.map do |(kind, settings), place|
      prompt = Roost::Core::Kinds.named(kind.downcase).new(id: "p#{place}", settings: settings)
      slide("s#{place}", heading: "#{place + 1} The most it can ask", prompt: prompt)
    end
    expect(faults(slides, 20)).to be_empty
  end

  describe "where texts are as long as they may be" do
    def text(length) = ("long legs and a patient eye " * 20)[0, length].strip

    # @param texts [Integer] length of each
    def option(place, texts, picture = nil)
      { "id" => "o#{place}", "text" => text(texts), "key" => place.zero?, "picture" => picture&.to_document }.compact
    end

    let(:slides) do
      pictures = %w[heron swallow reed duck owl egg].map { |name| Roost::Operations::TakeDrawing.new.call(account, name).value }
      rows = Array.new(8) { |place| { "id" => "m#{place}", "left" => text(80), "right" => "#{text(78)}#{place}" } }
      items = Array.new(10) { |place| { "id" => "i#{place}", "text" => "#{place} #{text(100)}" } }
      asked = { "choice" => { "options" => Array.new(6) { |place| option(place, 200) } }, "match" => { "rows" => rows },
                "order" => { "items" => items } }.to_a
      asked << ["choice", { "options" => pictures.each_with_index.map { |picture, place| option(place, 60, picture) } }]
      asked.each_with_index.map do |(kind, settings), place|
        prompt = Roost::Core::Kinds.named(kind).new(id: "p#{place}", settings: settings)
        slide("s#{place}", heading: "#{place} #{text(190)}", prompt: prompt)
      end
    end

    after { sized(1280, 800) }

    # What students write is as long as it may be, too.
    describe "in what students give" do
      let(:slides) do
        picture = Roost::Operations::TakeDrawing.new.call(account, "heron").value
        region = { "shape" => "circle", "points" => [[300, 300]], "radius" => 80, "name" => text(40), "wanted" => 1 }
        gaps = (1..12).map { |number| "#{text(110)} [[fly#{number}|go#{number}]]" }.join(". ")
        asked = { "words" => {}, "writing" => {}, "posts" => { "columns" => [text(40), text(38)] }, "sketch" => {},
                  "spots" => { "regions" => [region], "labels" => true }, "gaps" => { "text" => gaps },
                  "number" => { "unit" => "m" * 20, "key" => "value", "value" => "12345678" } }
        asked.each_with_index.map do |(kind, settings), place|
          prompt = Roost::Core::Kinds.named(kind).new(id: "p#{place}", settings: settings)
          slide("s#{place}", heading: "#{place} #{text(190)}", prompt: prompt, pictures: kind == "spots" ? [picture] : [])
        end
      end

      def longest(prompt, student, random)
        value = prompt.simulate(student, random)
        case prompt.kind
        when "words" then { "words" => ["#{student.name} #{"m" * 40}"[0, 40]] }
        when "writing" then { "text" => "#{student.name} #{text(400)}" }
        when "posts"
          { **value, "posts" => value["posts"].map { |post| { **post, "text" => "#{student.name} #{text(260)}"[0, 280] } } }
        when "spots" then { "spots" => value["spots"].map { |spot| { **spot, "label" => "m" * 24 } } }
        else value
        end
      end

      [0, 1, 30].each do |many|
        it "keeps its type and cuts nothing off, with #{many} answers" do
          expect(faults(slides, 20, many: many) { sized(1280, 720) }).to be_empty
        end
      end
    end

    # 1280 wide, and its shapes that matter: nearly square, very large, upright.
    [[1024, 768], [1280, 720], [3840, 2160], [1080, 1920]].each do |width, height|
      it "cuts nothing off at #{width} × #{height}, asked and shown with 24 answers, and keeps its type" do
        expect(faults(slides, 20 * [width, height].max / 1280) { sized(width, height) }).to be_empty
      end
    end

    it "shows the pictures of four options in one row, as large as there is room for" do
      options = %w[heron swallow duck owl].each_with_index.map do |name, place|
        option(place, 10, Roost::Operations::TakeDrawing.new.call(account, name).value)
      end
      prompt = Roost::Core::Kinds::Choice::Prompt.new(id: "p", settings: { "options" => options })
      session = kept_session(account,
                             Roost::Core::Lesson.new(title: "M", slides: [slide("s", heading: "Which?", prompt: prompt)]))
      command(session, "begin")
      screen.visit "/screen/#{session.screen_key}"
      screen.evaluate_async_script(Legible::FITTED)
      boxes = screen.evaluate_script(<<~JS)
        [...document.querySelectorAll(".option-picture")].map((each) => each.getBoundingClientRect()).map(({ y, width }) => [y, width])
      JS
      expect([boxes.length, boxes.map(&:first).uniq.length, boxes.map(&:last).min]).to match([4, 1, be > 260])
    end
  end
end

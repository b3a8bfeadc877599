# frozen_string_literal: true

# The class screen is read from eight metres: no type under 20 pixels at 1280 wide. Where a question
# is as full as can be the type may be a tenth smaller, and nothing is ever cut off.
RSpec.describe "The class screen, from the back row" do
  include Legible

  let(:account) { teacher }
  let(:screen) { window(:screen) }

  def demo(name) = YAML.safe_load_file(File.join(Roost::Settings::ROOT, "demo/lessons/#{name}.yml"))["slides"]

  def give(session, slide, seats)
    random = Random.new(4)
    seats.each do |student, seat_id|
      Roost::Store::Answers.new.save(session_id: session.id, seat_id: seat_id, slide_id: slide.id, final: true, save_no: 1,
                                     value: slide.prompt.simulate(student, random), keyed: slide.prompt.keyed?,
                                     save_id: SecureRandom.uuid)
    end
  end

  def let_through(session, slide)
    return unless slide.prompt.board?

    keys = moment(session).tally(slide.id).waiting.map(&:key)
    command(session, "curate", slide: slide.id, what: "approve", cards: keys.join("\n"))
  end

  # Shows each question, and what 24 gave, and says what is too small or cut off.
  def faults(slides, least)
    session = kept_session(account, Roost::Core::Lesson.new(title: "Marsh", slides: slides))
    seats = Roost::Core::Practice::Roster.students(24, seed: 5).to_h do |student|
      [student, Roost::Store::Seats.new.create(session.id, student.name).first]
    end
    command(session, "begin")
    screen.visit "/screen/#{session.screen_key}"
    slides.flat_map do |slide|
      command(session, "jump", slide: slide.id)
      expect(screen).to have_css(".screen-stage h1", text: slide.heading)
      asked = look(slide, "asked", least)
      give(session, slide, seats)
      let_through(session, slide)
      command(session, "close")
      command(session, "show", what: "results")
      command(session, "show", what: "key") if slide.prompt.keyed?
      expect(screen).to have_css(".screen-stage.is-result", wait: 10)
      [asked, look(slide, "shown", least)].compact
    end
  end

  def look(slide, words, least)
    (size, text), cut = smallest(screen)
    "#{slide.prompt.kind} #{words}: #{size} px #{text}, #{cut} cut off" if size < least || cut > 1
  end

  it "has no type under 18 pixels in any kind of question, with 24 answers" do
    sources = %w[birds-on-the-move voices-of-the-marsh].flat_map { |name| demo(name) }.select { |source| source["prompt"] }
    chosen = sources.uniq { |source| source["prompt"]["kind"] } | sources.select { |source| source["prompt"]["sure"] }
    slides = chosen.each_with_index.map do |source, place|
      settings = source["prompt"].except("kind", "time_limit")
      prompt = Roost::Core::Kinds.named(source["prompt"]["kind"]).new(id: "p#{place}", settings: settings)
      slide("s#{place}", heading: source["heading"], text: source["text"].to_s, prompt: prompt)
    end
    expect(faults(slides, 18)).to be_empty
  end

  it "has none under 15 where a question holds the most it can, and cuts nothing off" do
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
    expect(faults(slides, 15)).to be_empty
  end
end

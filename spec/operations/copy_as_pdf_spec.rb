# frozen_string_literal: true

RSpec.describe Roost::Operations::CopyAsPdf do
  let(:account) { teacher }
  let(:photograph) { Vips::Image.black(300, 200, bands: 3).write_to_buffer(".jpg") }
  let(:picture) do
    Roost::Store::Media.new.keep_picture(photograph, extension: "jpg", width: 300, height: 200, account_id: account)
  end
  let(:lesson) do
    slides = [slide("s0", heading: "Look", pictures: [picture]),
              slide("q1", heading: "Who stays?", prompt: choice(keys: %w[o1], explanation: "They eat *fish*.")),
              slide("q2", heading: "Draw it", prompt: Roost::Core::Kinds::Sketch::Prompt.new(id: "p2", settings: {}))]
    Roost::Core::Lesson.new(title: "Birds", slides: slides)
  end
  let(:session) { kept_session(account, lesson, own_copy: true) }

  let(:svg) { '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 12 9"><path d="M0 0h9"/></svg>' }

  # @return [Array<Hash>] what comes to be set, page by page
  def set(copy, **more)
    allow(Roost::Exchange::CopySheet).to receive(:pdf) do |sheet|
      drawn = sheet[:pages].flat_map { |page| page[:rows] }.filter_map { |row| row[:picture] }
      files = sheet[:pages].flat_map { |page| page[:pictures] } + drawn
      @sizes = files.map { |path| Roost::Exchange::Raster.new(path).header.to_a.first(2) }
      @sheet = sheet
      "%PDF"
    end
    described_class.new.call(copy, about: "Ada", **more)
    @sheet[:pages]
  end

  def copy_of(seat) = Roost::Operations::OwnCopy.new.call(Roost::Store::Sessions.new.find(session.id), seat[:id])

  def run
    seat, = take_seat(session, "Ada")
    command(session, "begin")
    stroke = { "strokes" => ['[{"tool":"pen","colour":"ink","points":[1,1,300,300]}]'] }
    { "q1" => picked("o2"), "q2" => stroke }.each do |id, given|
      command(session, "jump", slide: id)
      Roost::Operations::VisitSeat.new.call(seat, Roost::Store::Sessions.new.find(session.id))
      save(session, seat, id, given)
      command(session, "close")
      put_back(session, 2, :closed_at, slide: id)
      command(session, "show", what: "key")
    end
    Roost::Store::Comments.new.write(seat[:id], "q1", "Look again.")
    saved = { save_no: 1, save_id: SecureRandom.uuid, writer: nil, over: [] }
    Roost::Store::Notes.new.save(seat[:id], "s0", text: "Ask at home", **saved)
    command(session, "end")
    seat
  end

  it "has pictures as files, a drawing in place of its words, and all that was said of an answer" do
    pages = set(copy_of(run), drawings: { "q2" => svg })
    expect(pages[0][:rows]).to eq([{ is: :note, text: "Ask at home" }])
    expect(pages[1][:rows]).to eq([{ is: :given, text: "B Swallow" }, { is: :outcome, text: "✗ Not this time" },
                                   { is: :right, text: "Grey heron" }, { is: :why, markdown: "They eat *fish*." },
                                   { is: :comment, text: "Look again." }])
    expect(pages[2][:rows].map { |row| row.keys - [:text] }).to eq([%i[is picture]])
    expect(@sizes).to eq([[300, 200], [1000, 750]])
  end

  it "has so many pictures and no more, and makes two at a time" do
    stub_const("Roost::Operations::PaperPictures::MOST", 1)
    copy = copy_of(run)
    drawn = copy.pages[2]
    expect(set(copy, drawings: { "q2" => svg })[2][:rows].first)
      .to eq({ is: :given, text: drawn.slide.prompt.plain(drawn.outcome.answer.value) })
    2.times { described_class::TURNS << true }
    expect(described_class.new.call(copy, about: "Ada")).to be_nil
  ensure
    described_class::TURNS.clear
  end
end

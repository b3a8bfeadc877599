# frozen_string_literal: true

RSpec.describe "Somebody who has never seen it" do
  let!(:account) { teacher }

  before { sign_in }

  def body = last_response.body

  def lesson_of(slides, owner: account, title: "Marsh")
    Roost::Store::Lessons.new.create(owner, Roost::Core::Lesson.new(title: title, slides: slides))
  end

  describe "on the first page" do
    it "is offered a lesson that runs, slides of her own, and starters, each until it has been used" do
      ways = -> { Nokogiri::HTML(get("/today").body).css(".first-ways h3").map(&:text) }
      expect(ways.call).to eq(["Try a lesson", "Import your slides", "Begin from a starter"])
      lesson_of([slide])
      2.times { post_form "/lessons/starters" }
      expect(ways.call).to eq(["Try a lesson", "Import your slides"])
      post_form "/lessons/try"
      expect(ways.call).to eq(["Import your slides"])
      post_form "/lessons/file", file: upload("just words", "x.pdf")
      expect(ways.call).to eq(["Import your slides"])
      post_form "/lessons/file", file: upload(Pdfs.make(["A reed"]), "My reeds.pdf")
      expect(ways.call).to eq([])
    end

    it "tries a ready lesson with a practice class in one press" do
      post_form "/lessons/try"
      expect(last_response.headers["location"]).to match(%r{/desk/\d+\z})
      session = database[:sessions].first
      class_size = database[:seats].where(session_id: session[:id], practice: true).count
      expect([session[:title], class_size]).to eq(["Beaks and supper", 24])
    end

    def upload(bytes, name) = Rack::Test::UploadedFile.new(StringIO.new(bytes), original_filename: name)

    it "makes a lesson of a file, and none of what is no file of slides" do
      post_form "/lessons/file", file: upload(Pdfs.make(["A reed"]), "My reeds.pdf")
      id = database[:lessons].get(:id)
      expect(last_response.headers["location"]).to end_with("/lessons/#{id}")
      expect([Roost::Store::Lessons.new.find(account, id).lesson.title, database[:imports].count]).to eq(["My reeds", 1])
      post_form "/lessons/file", file: upload("just words", "x.pdf")
      expect([last_response.status, body]).to match([422, /“x.pdf” is no PDF/])
      expect(Roost::Store::Lessons.new.of(account).length).to eq(1)
    end

    it "begins from a ready slide" do
      post_form "/lessons/starters"
      expect(last_response.headers["location"]).to match(%r{/lessons/\d+/starters\z})
    end
  end

  describe "before a lesson starts" do
    it "is told that it is still empty" do
      empty = lesson_of([slide("s1", heading: "")])
      expect(get("/lessons/#{empty}/start").body).to include("This lesson is still empty")
      expect(get("/lessons/#{lesson_of([slide("s1")])}/start").body).not_to include("still empty")
    end

    it "is shown the session of it that runs already" do
      session = kept_session(account)
      expect(get("/lessons/#{session.lesson_id}/start").body).to include("Go to its Desk", "/desk/#{session.id}")
      command(session, "begin")
      command(session, "end")
      expect(get("/lessons/#{session.lesson_id}/start").body).not_to include("Go to its Desk")
    end
  end

  it "asks for letters without words, and devices show each letter once" do
    session = kept_session(account)
    command(session, "begin")
    token = take_seat(session).last
    post_form "/desk/#{session.id}/ask", words: "A to D", heading: "", from: "s1"
    get "/seat/#{token}"
    labels = Nokogiri::HTML(body).css(".option")
    options = labels.map { |option| option.text.split.join(" ") }
    expect(options).to eq(["A Option A", "B Option B", "C Option C", "D Option D"]) # the second is for those who hear it
    labels.css(".sr-only").remove
    expect(labels.css(".option-text").map { |words| words.text.strip }).to all(eq(""))
  end

  it "is offered to correct the lesson only where the lesson has the question" do
    session = kept_session(account)
    command(session, "begin")
    key = ->(id) { get("/results/#{session.id}/questions/#{id}/key").body.include?("In the lesson, too") }
    expect(key.call("s3")).to be(true)
    post_form "/desk/#{session.id}/ask", words: "Yes or no", heading: "Cold?", from: "s1"
    expect(key.call(Roost::Store::Sessions.new.find(session.id).state.slide_id)).to be(false)
  end

  it "finds in the history the numbers that messages speak of" do
    id = lesson_of([slide("s1")])
    get "/lessons/#{id}"
    @token = token
    post_form "/lessons/#{id}/title", title: "Meres"
    post_form "/lessons/#{id}/undo"
    rows = Nokogiri::HTML(get("/lessons/#{id}/history").body).css(".history li").map { |row| row.text.split.join(" ") }
    expect(rows.length).to eq(3)
    expect(rows.first).to match(/\A3 .*Undone: version 2/)
    expect(rows[1]).to start_with("2 ")
  end

  it "may write words into one field with commas between" do
    words = Roost::Core::Kinds::Words::Prompt.new(id: "p", settings: { "most" => 3 })
    read = ->(*given) { words.read({ "words" => given }) }
    expect(read.call("mud, water, reeds").value).to eq({ "words" => %w[mud water reeds] })
    expect(read.call("mud; water", "wind", "").value).to eq({ "words" => %w[mud water wind] })
    expect([read.call("a, b, c, d, e, f"), read.call("a, b, c, d"), read.call("a, b", "c", "d")].map(&:reason))
      .to all(eq("3 words is the most here. Remove some."))
    expect(read.call("#{"x" * 2_000},y").reason).to be_a(String)
  end

  describe "looking for things" do
    let(:other) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }

    def found(query) = Nokogiri::HTML(get("/lessons", q: query).body).css(".lesson h2").map { |title| title.text.strip }

    it "finds what is open to all among All, and by its owner's name" do
      open = lesson_of([slide("s1", heading: "Otters")], owner: other, title: "Otters of the mere")
      lesson_of([slide("s1", heading: "Otters too")], owner: other, title: "Not for others")
      lesson_of([slide("s1", heading: "An otter")], title: "Mine")
      Roost::Store::Sharing.new.open_to_all(open, true)
      expect(found("otter")).to contain_exactly("Otters of the mere", "Mine")
      expect([found("rowe"), found("Row"), found("owe")]).to eq([["Otters of the mere"], ["Otters of the mere"], []])
      expect(found("")).to eq(["Mine"])
    end

    it "finds by a standard's code that standard only" do
      codes = %w[SCI.7.2 SCI.7.21 SCI.7.20]
      codes.each { |code| lesson_of([slide("s1", prompt: choice(poll: true, standards: [code]))], title: "For #{code}") }
      expect(found("SCI.7.2")).to eq(["For SCI.7.2"])
      expect(found("sci.7.21")).to eq(["For SCI.7.21"])
      list = codes.map { |code| { code: code, words: "About #{code}", subject: "", level: "" } }
      Roost::Store::Standards.new.keep(account, list, for_all: false)
      standards = Roost::Store::Standards.new
      expect(standards.find(account, "sci.7.2").map(&:code)).to eq(["SCI.7.2"])
      expect(standards.find(account, "sci.7").length).to eq(3)
    end
  end

  it "is told at the end what was done, and thanked, at the Desk and at a seat" do
    session = kept_session(account)
    seat, token = take_seat(session)
    command(session, "begin")
    command(session, "jump", slide: "s2")
    get "/seat/#{token}"
    save(session, seat, "s2", { "options" => ["o1"] })
    command(session, "jump", slide: "s3")
    get "/seat/#{token}"
    put_back(session, 60, :opened_at)
    command(session, "end")
    expect(Nokogiri::HTML(get("/seat/#{token}").body).at_css(".seat-wait").text.split.join(" "))
      .to include("You answered 1 of 2 questions. Thank you.", "Join another lesson")
    expect(Nokogiri::HTML(get("/desk/#{session.id}").body).at_css(".desk-lobby").text.split.join(" "))
      .to include("That was Birds on the move", "1 student took part, 2 questions were asked, 1 answer came.", "See the results")
  end
end

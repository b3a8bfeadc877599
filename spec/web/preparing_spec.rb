# frozen_string_literal: true

RSpec.describe "Preparing, page by page" do
  let(:account) { teacher }
  let(:id) { kept_lesson(account) }
  let(:lessons) { Roost::Store::Lessons.new }

  before do
    id
    sign_in
  end

  def lesson = lessons.find(account, id).lesson

  def file(content, name, type = "application/octet-stream")
    Rack::Test::UploadedFile.new(StringIO.new(content), type, original_filename: name)
  end

  def body = last_response.body

  describe "a sheet of questions" do
    let(:sheet) { "Question,Option A,Option B,Right\nWho stays?,Heron,Swallow,A\nWho leaves?,Heron,Swallow,Z\n" }

    it "is shown with what can't be used before anything is saved, then added in one change" do
      post_form "/lessons/#{id}/sheet", sheet: file(sheet, "birds.csv"), slide: "s2"
      expect(body).to include("1 question</strong> can come in", "“Right” names Z, which isn&#39;t an option.")
      expect(lesson.slides.length).to eq(5)
      post_form body[%r{/lessons/\d+/sheet/\h{32}}], slide: "s2"
      expect(lesson.slides[2].heading).to eq("Who stays?")
      expect(lesson.slides[2].prompt).to be_keyed
      post_form last_request.path, slide: "s2"
      expect([last_response.status, lesson.slides.length]).to eq([422, 6])
      post_form "/lessons/#{id}/undo"
      expect(lesson.slides.length).to eq(5)
    end

    it "waits on when there is no room for it" do
      change = ->(lesson) { lesson.with_slides_after(nil, Array.new(595) { |number| slide("x#{number}") }) }
      post_form "/lessons/#{id}/sheet", sheet: file(sheet, "birds.csv")
      address = body[%r{/lessons/\d+/sheet/\h{32}}]
      Roost::Operations::ChangeLesson.new.call(account, id) { |lesson| Roost::Core::Reading.ok(change.call(lesson)) }
      expect(post_form(address).body).to include("600 slides is the most a lesson can have.")
      Roost::Operations::UndoLesson.new.call(account, id)
      expect(post_form(address).status).to eq(303)
      expect(lesson.slides.length).to eq(6)
    end

    it "waits for the teacher who sent it and for nobody else" do
      post_form "/lessons/#{id}/sheet", sheet: file(sheet, "birds.csv")
      ticket = body[%r{sheet/(\h{32})}, 1]
      expect(Roost::Store::PendingUploads.new.find(account, ticket)).not_to be_nil
      expect(Roost::Store::PendingUploads.new.find(account + 1, ticket)).to be_nil
      expect(post_form("/lessons/#{id}/sheet/#{"0" * 32}").status).to eq(422)
      expect(Roost::Store::PendingUploads.new.find(account, "../../etc/passwd")).to be_nil
    end

    it "goes out in the pattern, as CSV and XLSX" do
      get "/lessons/#{id}/questions.csv"
      expect(body).to include("Question,Kind,Option A", "Why do swallows leave?")
      get "/lessons/#{id}/questions.xlsx"
      expect(body[0, 2]).to eq("PK")
      %w[csv xlsx].each { |type| expect(get("/sheets/pattern.#{type}").status).to eq(200) }
    end

    it "goes out under our name where the lesson's has nothing that may stand in one" do
      get "/lessons/#{kept_lesson(account, Roost::Core::Lesson.new(title: "?!", slides: marsh_lesson.slides))}/questions.csv"
      expect(last_response.headers["content-disposition"]).to include("Amber Roost.csv")
    end

    it "brings 500 rows in" do
      rows = Array.new(500) { |number| "Question #{number},a,b,B\n" }.join
      post_form "/lessons/#{id}/sheet", sheet: file("Question,Option A,Option B,Right\n#{rows}", "many.csv")
      post_form body[%r{/lessons/\d+/sheet/\h{32}}]
      expect(lesson.slides.length).to eq(505)
    end
  end

  describe "the question bank" do
    it "keeps copies of questions, finds them by word and tag, and puts them into another lesson" do
      post_form "/lessons/#{id}/slides/s3", rev: 1, prompt: { subtopics: "winter, food", standards: "SCI.7.2" }
      post_form "/lessons/#{id}/chosen", do: "bank", ids: %w[s1 s3 s4]
      expect(database[:bank_questions].count).to eq(2)
      get "/bank?q=swallow&subtopic=food"
      expect(body).to include("Why do swallows leave?").and(satisfy { |text| !text.include?("How do they know the way?") })
      get "/bank?standard=SCI.7.2"
      expect(body).to include("Why do swallows leave?")
      other = kept_lesson(account, Roost::Core::Lesson.new(title: "Nests", slides: [slide("s1")]))
      post_form "/lessons/#{other}/bank", questions: database[:bank_questions].order(:id).select_map(:id)
      copies = lessons.find(account, other).lesson.slides.drop(1)
      expect(copies.map(&:heading)).to eq(["Why do swallows leave?", "How do they know the way?"])
      expect(copies.first.prompt.settings).to eq(lesson.slide("s3").prompt.settings.merge("origin" => "p3"))
    end

    it "says when there is no question to keep, and is nobody else's" do
      expect(post_form("/lessons/#{id}/chosen", do: "bank", ids: %w[s1]).status).to eq(422)
      post_form "/lessons/#{id}/chosen", do: "bank", ids: %w[s3]
      stranger = teacher(email: "rowe@heronsgate.example")
      expect(Roost::Store::Bank.new.find(stranger)).to be_empty
      expect(Roost::Store::Bank.new.take(stranger, database[:bank_questions].select_map(:id))).to be_empty
    end

    it "gives back what was taken out" do
      post_form "/lessons/#{id}/chosen", do: "bank", ids: %w[s3]
      question = database[:bank_questions].get(:id)
      post_form "/bank/remove", questions: [question]
      expect(Roost::Store::Bank.new.find(account)).to be_empty
      post_form "/bank/restore", removed: question
      expect(Roost::Store::Bank.new.find(account).length).to eq(1)
    end
  end

  describe "learning standards" do
    let(:list) do
      "code;text;subject;level\nSCI.7.2;Why animals migrate;Science;Year 7\n;No code;;\nSCI.7.3;Food chains;Science;Year 7\n"
    end

    it "come from a sheet, are found while tagging, and can be open to all" do
      post_form "/standards", sheet: file(list, "list.csv"), for_all: "1"
      expect(body).to include("2 standards</strong> came in", "Row 3: it has no code")
      get "/standards/search?q=migr"
      expect(body).to include('data-standard="SCI.7.2"')
      stranger = teacher(email: "rowe@heronsgate.example")
      expect(Roost::Store::Standards.new.find(stranger, "sci.7").map(&:code)).to eq(%w[SCI.7.2 SCI.7.3])
      post_form "/standards/remove"
      expect(Roost::Store::Standards.new.all(stranger)).to be_empty
    end

    it "take the place of those with the same code, and a percent sign is just a sign" do
      2.times { post_form "/standards", sheet: file(list, "list.csv") }
      expect(database[:standards].count).to eq(2)
      expect(Roost::Store::Standards.new.find(account, "%")).to be_empty
      expect(post_form("/standards", sheet: file("a,b\n1,2\n", "x.csv")).body).to include("needs the columns code and text")
    end
  end

  describe "starters and the picture library" do
    it "has at least 24 starters, each of which becomes a whole slide" do
      expect(Roost::Store::Starters.all.length).to be >= 24
      Roost::Store::Starters.all.each do |starter|
        slide = Roost::Operations::UseStarter.new.call(account, starter, "x").value
        expect([starter.id, slide.problems - ["no key yet"]]).to eq([starter.id, []])
        expect(slide.picture.alt).not_to be_empty if starter.drawing
      end
      kinds = Roost::Store::Starters.all.map { |starter| starter.slide.prompt.kind }.tally
      expect(kinds.keys).to match_array(Roost::Core::Kinds.all.map(&:kind))
      expect(kinds.values).to all(be >= 2)
      expect(Roost::Store::Starters.all.map(&:id).uniq.length).to eq(Roost::Store::Starters.all.length)
    end

    it "puts a starter in with one click" do
      post_form "/lessons/#{id}/starters", starter: "how-clear", slide: "s1"
      expect(lesson.slides[1].heading).to eq("How clear is the water for you?")
      expect(post_form("/lessons/#{id}/starters", starter: "../x").status).to eq(422)
    end

    it "has at least 60 drawings, all of which pass through the cleaning whole" do
      expect(Roost::Store::PictureLibrary.all.length).to be >= 60
      Roost::Store::PictureLibrary.all.each do |drawing|
        picture = Roost::Operations::TakeDrawing.new.call(account, drawing.name).value
        kept = Nokogiri::XML(File.read(Roost::Store::Media.new.find(picture.file).first))
        original = Nokogiri::XML(File.read(Roost::Store::PictureLibrary.path(drawing)))
        expect([drawing.name, kept.css("*").length]).to eq([drawing.name, original.css("*").length])
      end
    end

    it "finds drawings by the beginnings of words, and puts one on a slide or an option" do
      expect(Roost::Store::PictureLibrary.find("bird beak hook").map(&:name)).to eq(["beak-hooked"])
      get "/pictures?q=zebra"
      expect(body).to include("No drawing like that.")
      post_form "/lessons/#{id}/slides/s1/drawing", rev: 1, drawing: "heron"
      expect(lesson.slide("s1").picture.alt).to eq("Grey heron standing in water")
      post_form "/lessons/#{id}/slides/s3/drawing", rev: 1, drawing: "duck", option: "o2"
      expect(lesson.slide("s3").prompt.options[1].picture.alt).to eq("Duck on a pond")
      expect(post_form("/lessons/#{id}/slides/s4/drawing", rev: 1, drawing: "duck", option: "o2").status).to eq(422)
    end
  end

  describe "sharing" do
    let!(:colleague) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }

    it "lets a colleague edit or only look, tells her by mail, and takes it back" do
      post_form "/lessons/#{id}/shares", email: "Rowe@heronsgate.example", may_edit: "0"
      expect([lessons.look(colleague, id).nil?, lessons.find(colleague, id).nil?]).to eq([false, true])
      post_form "/lessons/#{id}/shares", email: "rowe@heronsgate.example", may_edit: "1"
      expect(lessons.find(colleague, id)).not_to be_nil
      expect(database[:outbox_mails].select_map(:body).last).to include("to edit together", "/lessons/#{id}")
      post_form "/lessons/#{id}/shares/#{colleague}/remove"
      expect(lessons.look(colleague, id)).to be_nil
    end

    it "refuses what can't be shared with, and is the owner's to do" do
      expect(post_form("/lessons/#{id}/shares",
                       email: "nobody@heronsgate.example").body).to include("Nobody here has that email.")
      expect(post_form("/lessons/#{id}/shares", email: "falk@heronsgate.example").body).to include("That is you.")
      post_form "/lessons/#{id}/shares", email: "rowe@heronsgate.example", may_edit: "1"
      clear_cookies
      sign_in("rowe@heronsgate.example")
      ["/shares", "/open", "/archive", "/shares/#{account}/remove", "/delete"].each do |path|
        expect([path, post_form("/lessons/#{id}#{path}", email: "x@y.example").status]).to eq([path, 404])
      end
      expect(post_form("/lessons/#{id}/title", title: "Together").status).to eq(303)
    end

    it "opens a lesson to all here to look through, copy and start, and not to change" do
      post_form "/lessons/#{id}/open", open: "1"
      clear_cookies
      sign_in("rowe@heronsgate.example")
      expect([get("/lessons/#{id}/look").status, get("/lessons/#{id}/preview").status, get("/lessons/#{id}").status])
        .to eq([200, 200, 404])
      expect(post_form("/lessons/#{id}/title", title: "Mine").status).to eq(404)
      post_form "/lessons/#{id}/copy"
      expect(lessons.of(colleague).map { |record| record.lesson.slides.length }).to eq([5])
    end
  end

  describe "the preview" do
    it "shows the real seat and class screen in frames of our own pages only, and never a teachers' slide" do
      database # keeps the lesson's slides
      post_form "/lessons/#{id}/slides/s2", rev: 1, for_class: "0", notes: "secret"
      get "/lessons/#{id}/preview?slide=s2"
      expect(body).to include("1</strong> of 4").and(satisfy { |text| !text.include?("Have you seen one?") })
      get "/lessons/#{id}/preview/seat?slide=s3"
      expect(body).to include("data-preview", "Grey heron").and(satisfy { |text| !text.include?("data-token") })
      expect(last_response.headers["content-security-policy"]).to include("frame-ancestors 'self'")
      get "/lessons/#{id}/preview/seat?slide=s2"
      expect(body).not_to include("Have you seen one?")
      get "/lessons/#{id}/preview/screen?slide=s3&told=1"
      expect(body).to include("right-word")
    end
  end

  describe "the preview of a quiz" do
    it "goes from slide to slide, into it and out of it" do
      quiz = Roost::Core::Lesson.new(title: "Birds", slides: %w[a q b].map { |name| slide(name, heading: name) },
                                     sections: [section("quiz1", "quiz", %w[q])])
      other = kept_lesson(account, quiz)
      leads = lambda do |at|
        get("/lessons/#{other}/preview?slide=#{at}").body.scan(/class="button[^"]*" href="[^"]*slide=(\w+)"/).flatten
      end
      expect(%w[a q b].map { |at| leads.call(at) }).to eq([%w[q], %w[a b], %w[q]])
    end
  end

  describe "history and details" do
    it "shows every save, looks at an earlier one, and brings it back" do
      post_form "/lessons/#{id}/title", title: "New title"
      get "/lessons/#{id}/history"
      expect(body).to include("Title, details, order or sections", "Lesson created")
      get "/lessons/#{id}/history/1"
      expect(body).to include("Birds on the move", "Restore this version")
      post_form "/lessons/#{id}/history/1"
      expect(lesson.title).to eq("Birds on the move")
      expect(get("/lessons/#{id}/history/99").status).to eq(404)
    end

    it "keeps what a lesson is about" do
      post_form "/lessons/#{id}/about", goal: "I can say why birds leave", vocabulary: "moult, roost", theme: "reed"
      expect(lesson.details.to_h).to include(goal: "I can say why birds leave", vocabulary: %w[moult roost], theme: "reed")
      expect(post_form("/lessons/#{id}/about", title: " ").status).to eq(422)
    end
  end

  describe "bad input" do
    it "is refused with one sentence each, and the slide is as it was" do
      before = lesson
      { "/slides/s1/pictures" => { pictures: [file("\x89PNG\r\n\x1A\n#{"\x00" * 90}".b, "broken.png", "image/png")] },
        "/slides/s1/clips/video" => { file: file("just words " * 50, "film.mp4", "video/mp4") },
        "/slides/s1/clips/sound" => { file: file("<svg/>", "song.mp3") },
        "/slides/s1/captions" => { file: file("no captions", "a.vtt") },
        "/slides/s1" => { web: "https://192.168.0.1/admin" },
        "/imports" => { file: file("%PDF-1.4 broken", "a.pdf") },
        "/sheet" => { sheet: file("PK\x03\x04#{"x" * 400}", "a.xlsx") } }.each do |path, fields|
        post_form "/lessons/#{id}#{path}", rev: 1, **fields
        expect([path, last_response.status]).to eq([path, 422])
        expect(body.scan("<p>").length).to be <= 3
      end
      expect(lesson).to eq(before)
    end

    it "takes no request larger than its address needs" do
      header = { "CONTENT_LENGTH" => (300 * 1024 * 1024).to_s }
      expect(post("/lessons/#{id}/slides/s1/clips/video", {}, header).status).to eq(413)
      expect(post("/lessons/#{id}/title", {}, { "CONTENT_LENGTH" => (13 * 1024 * 1024).to_s }).status).to eq(413)
    end
  end
end

RSpec.describe Roost::Web::Markdown do
  it "gives formulas to be set on the device, and leaves prices and code alone" do
    html = described_class.html("Half is $\\frac{1}{2}$, it costs $5 or $6, and `$x$` is code.\n\n$$a<b$$")
    expect(html.scan("<tex-formula").length).to eq(2)
    expect(html).to include('data-source="\\frac{1}{2}"', "$5 or $6", "<code>$x$</code>",
                            'data-source="a&lt;b" data-block="true"')
  end

  it "lets nothing out of a formula that could run" do
    html = described_class.html('$\\href{javascript:alert(1)}{x}"onload="y$ <script>$a$</script>')
    expect(html).not_to match(/<script|"onload="/)
    expect(described_class.line("<b>$x<i>$")).to start_with("&lt;b&gt;<tex-formula")
  end
end

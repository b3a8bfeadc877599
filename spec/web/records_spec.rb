# frozen_string_literal: true

# What a school keeps about one student, shown to them, and taken away.
RSpec.describe "What is kept about a student" do
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:students) { Roost::Store::Students.new.of_class(klass) }
  let(:ada) { students.first }
  let(:record) { "/classes/#{klass}/students/#{ada.id}/record" }
  let!(:session) do
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm\nBo Lind").value)
    started
  end
  let!(:seats) do
    command(session, "begin")
    command(session, "jump", slide: "s4")
    taken = students.map do |student|
      seat = Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(session.code, "",
                                                                                      student_id: student.id).value)
      save(session, seat, "s4", { "text" => ["#{student.given} thinks so"] })
      seat[:id]
    end
    taken.tap { command(session, "end") }
  end

  before { sign_in("falk@heronsgate.example") }

  def started
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1", "own_copy" => "1" }
    Roost::Operations::StartSession.new.call(account, kept_lesson(account), form).value
  end

  def page = Nokogiri::HTML5(last_response.body)

  # @return [String] the file, made in the background
  def made(kind)
    post_form "#{record}/#{kind}"
    Roost::Operations::MakeExport.new.call(database[:exports].order(:id).last[:id])
    get "#{record}/#{kind}", {}, "HTTP_HX_REQUEST" => "true"
    get page.at_css("a[download]")["href"]
    expect(last_response.status).to eq(200)
    last_response.body
  end

  it "is one JSON file, with every answer, comment and grade of theirs and of nobody else" do
    Roost::Operations::CommentAnswer.new.call(account, session.id, seats.first, "s4", "Say why.")
    Roost::Operations::MarkByHand.new.call(account, session.id, "s4", { seats.first => "3/4" })
    form = { "title" => "Oral", "on_date" => "2030-01-07", "possible" => "10", "points" => { ada.id.to_s => "7" } }
    Roost::Operations::KeepGradeColumn.new.create(account, klass, form)
    kept = JSON.parse(made("json"))
    expect(kept["student"]).to include("name" => "Ada Holm")
    answer = kept["sessions"].first["answers"].first
    expect(answer).to include("given" => "Ada thinks so", "mark" => 0.75, "comment" => "Say why.")
    expect(answer["value"]).to eq("text" => "Ada thinks so")
    expect(kept["grades"]).to eq([{ "column" => "Oral", "date" => "2030-01-07", "points" => 7.0, "possible" => 10.0 }])
    expect(kept["looked_at"].map { |entry| entry["what"] }).to match_array(%w[record grade mark])
    expect(JSON.generate(kept)).not_to match(/Bo Lind|Bo thinks/)
  end

  it "is made a few at a time, so that other teachers don't wait" do
    stub_const("Roost::Operations::MakeExport::MOST", 1)
    post_form "#{record}/json"
    post_form "#{record}/json"
    expect(last_response.status).to eq(303)
    post_form "#{record}/pdf"
    expect([last_response.status, page.text]).to match([422, include("are being made for you already")])
  end

  it "is a PDF to be read" do
    made("pdf")
    text = `pdftotext #{Roost::Store::Exports.new.path(database[:exports].get(:id))} -`.split.join(" ")
    expect(text).to include("What is kept about Ada Holm").and include("Ada thinks so")
  end

  it "has what they drew and at which attempt, what was drawn over it, and notes on slides that ask nothing" do
    stroke = { "tool" => "pen", "colour" => "ink", "points" => [10, 10, 200, 200] }
    own = started
    seat = Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(own.code, "", student_id: ada.id).value)
    command(own, "begin")
    command(own, "jump", slide: "s5")
    command(own, "open")
    save(own, seat, "s5", { "strokes" => JSON.generate([stroke]) })
    command(own, "again", after: "1")
    save(own, seat, "s5", { "strokes" => JSON.generate([stroke, stroke]) }, save_no: 2, attempt: 2)
    Roost::Store::Notes.new.save(seat[:id], "s1", over: [], text: "Ask about wings", save_no: 1, save_id: SecureRandom.uuid,
                                                  writer: SecureRandom.uuid)
    command(own, "end")
    Roost::Operations::DrawOnAnswer.new.call(account, own.id, seat[:id], "s5", "", JSON.generate([stroke]))
    held = JSON.parse(made("json"))["sessions"].first
    sketch = held["answers"].find { |answer| answer["question"] == "Sketch a wing" }
    expect([sketch, *sketch["other attempts"]].map { |one| one["value"]["strokes"].length }).to match_array([1, 2])
    expect([sketch["drawn on it"][""].length, held["other notes"]]).to eq([1, ["Ask about wings"]])
    allow(Roost::Operations::PaperPictures).to receive(:drawing).and_return(Roost::Web::AnswerDrawings.new)
    made("pdf")
    path = Roost::Store::Exports.new.path(database[:exports].where(kind: "student_pdf").get(:id))
    expect(`pdfimages -list #{path}`.lines.length - 2).to eq(2)
    expect(`pdftotext #{path} -`).to include("On attempt").and include("Ask about wings").and include("Your teacher drew on it")
  end

  it "has other teachers' sessions only for whoever keeps the school" do
    expect(Roost::Store::School.new.keeper?(account)).to be(true)
    rook = teacher(email: "rook@heronsgate.example")
    Roost::Operations::ShareClass.new.call(account, klass, "rook@heronsgate.example")
    own = Roost::Operations::StudentJson.new
    expect(JSON.parse(own.file(own.subject(rook, ada.id)))["sessions"]).to eq([])
    expect(JSON.parse(own.file(own.subject(account, ada.id)))["sessions"].length).to eq(1)
    stranger = teacher(email: "tern@heronsgate.example")
    expect(own.subject(stranger, ada.id)).to be_nil
  end

  it "is reached by the keeper from the log, also of classes of others, and by no other teacher" do
    rook = teacher(email: "rook@heronsgate.example")
    theirs = Roost::Operations::KeepClass.new.create(rook, { "name" => "8 Avocet" }).value
    Roost::Operations::FillClass.new.fill(rook, theirs, Roost::Core::ClassList.paste("Cleo Marsh").value)
    cleo = Roost::Store::Students.new.of_class(theirs).first
    Roost::Operations::NoteLook.new.call(rook, [cleo.id], :page)
    get "/school/log"
    get page.css("tbody a").find { |link| link.text == "Cleo Marsh" }["href"]
    follow_redirect!
    expect([last_response.status, page.at_css("h1").text]).to eq([200, "What is kept about Cleo Marsh"])
    expect(page.css("form[action$='/forget']")).to be_empty
    expect(Roost::Operations::ForgetStudent.new.call(account, theirs, cleo.id)).to be_nil
    clear_cookies
    sign_in("rook@heronsgate.example")
    [record, "/school/students/#{ada.id}"].each { |path| expect(get(path).status).to eq(404) }
  end

  it "leaves past sessions without a name, while the figures stay" do
    Roost::Operations::CommentAnswer.new.call(account, session.id, seats.first, "s4", "Dear Ada")
    Roost::Store::DrawnOn.new.put(session.id, seats.first, "s4", 1, "", [{ "tool" => "text", "text" => "Dear Ada" }])
    file = made("json").then { database[:exports].get(:id) }
    get record
    submit(page.at_css("form[action$='/forget']"))
    follow_redirect!
    expect(page.at_css("[role=status]").text).to include("removed from 1 session")
    get "/results/#{session.id}"
    expect(last_response.body).not_to include("Ada")
    results = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id)))
    expect(results.took_part).to eq(2)
    expect(%i[comments drawn_on].sum { |table| database[table].where(seat_id: seats.first).count }).to eq(0)
    expect(get("#{record}/json.file").status).to eq(303)
    Roost::Jobs::ForgetExports.new({}).does
    expect(File).not_to exist(Roost::Store::Exports.new.path(file))
    rook = teacher(email: "rook@heronsgate.example")
    expect(Roost::Operations::ForgetStudent.new.call(rook, klass, ada.id)).to be_nil
  end

  it "says who looked at it and who changed a mark, once in ten minutes, to the keeper alone" do
    2.times { get "/classes/#{klass}/students/#{ada.id}" }
    get "/results/#{session.id}/students/#{seats.last}"
    Roost::Operations::MarkByHand.new.call(account, session.id, "s4", { seats.first => "1" })
    get "/school/log"
    rows = page.css("tbody tr").map { |row| row.css("td").drop(1).map { |cell| cell.text.strip } }
    name = "#{marsh_lesson.slide("s4").name}, Birds on the move"
    expect(rows).to eq([["Ms Falk", "Ada Holm", "changed a mark: #{name}"],
                        ["Ms Falk", "Bo Lind", "looked at their results: Birds on the move"],
                        ["Ms Falk", "Ada Holm", "looked at their page"]])
    teacher(email: "rook@heronsgate.example")
    clear_cookies
    sign_in("rook@heronsgate.example")
    get "/school/log"
    expect(last_response.status).to eq(404)
  end
end

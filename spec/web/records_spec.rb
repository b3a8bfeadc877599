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
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1", "own_copy" => "1" }
    Roost::Operations::StartSession.new.call(account, kept_lesson(account), form).value
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
    get record
    submit(page.at_css("form[action$='/forget']"))
    follow_redirect!
    expect(page.at_css("[role=status]").text).to include("removed from 1 session")
    get "/results/#{session.id}"
    expect(last_response.body).not_to include("Ada")
    results = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id)))
    expect(results.took_part).to eq(2)
    expect(database[:comments].where(seat_id: seats.first).count).to eq(0)
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

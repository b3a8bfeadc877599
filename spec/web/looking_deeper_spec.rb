# frozen_string_literal: true

require "roo"

# What a teacher reads of a session in the ten minutes after it.
RSpec.describe "Results of a session" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }

  def text = Nokogiri::HTML5(last_response.body).text.split.join(" ")

  # Ten students answer the question of the marsh lesson: as said.
  def held(*picks)
    command(session, "begin")
    command(session, "jump", slide: "s3")
    command(session, "open")
    picks.each_with_index { |option, at| save(session, take_seat(session, "Student #{at}").first, "s3", picked(option)) }
    command(session, "end")
    database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
    sign_in("falk@heronsgate.example")
  end

  let(:key) { marsh_lesson.slide("s3").prompt.settings["keys"].first }
  let(:wrong) { (%w[o1 o2 o3 o4] - [key]).first }

  it "begin with what happened, and the way to what it says" do
    held(*([key] * 3), *([wrong] * 7))
    get "/results/#{session.id}"
    headline = Nokogiri::HTML5(last_response.body).at_css(".headline")
    expect(headline.text.split.join(" ")).to include("was missed by 7 of 10; 7 of them gave")
    expect(headline.at_css("a")["href"]).to eq("/results/#{session.id}/questions#question-s3")
  end

  it "say nothing of a handful of students, and nothing before the end" do
    held(*([wrong] * 5))
    get "/results/#{session.id}"
    expect(text).not_to include("What happened")
  end

  it "show who gave which wrong answer, by name, and how a figure comes about" do
    held(*([key] * 6), *([wrong] * 4))
    get "/results/#{session.id}/questions"
    page = Nokogiri::HTML5(last_response.body)
    expect(page.at_css(".wrong-answers dd").css("a").map(&:text)).to eq(["Student 6", "Student 7", "Student 8", "Student 9"])
    expect(page.at_css(".why").css("li").map(&:text))
      .to eq(["The marks of 10 students add up to 6.", "6 ÷ 10 = 60 % right, of all who reached it."])
    expect(page.css(".who tbody tr").map { |row| row.css("td").last.text }).to include("6", "4")
  end

  it "explain each mark on a student's page" do
    held(key, wrong)
    seats = Roost::Store::Seats.new.of(session.id)
    get "/results/#{session.id}/students/#{seats.first.id}"
    expect(text).to include("By the key the answer earns 1 of 1.").and include("1 ÷ 1 = 100 %.")
    get "/results/#{session.id}/students/#{seats.last.id}"
    expect(text).to include("By the key the answer earns 0 of 1.")
    before, after = %w[prev next].map { |rel| Nokogiri::HTML5(last_response.body).at_css("a[rel=#{rel}]") }
    expect([before["title"], after]).to eq(["Student 0", nil])
  end

  def grid_rows
    Nokogiri::HTML5(last_response.body).css(".grid tbody tr").map { |row| row.css("th, td").first(2).map { |cell| cell.text.strip } }
  end

  it "are read as signs, percent, times or answers, sorted by any column, on a phone one question at a time" do
    held(key, wrong, key)
    path = "/results/#{session.id}"
    get "#{path}?as=percent&sort=s3"
    expect(grid_rows).to eq([["Student 1", "0 %"], ["Student 0", "100 %"], ["Student 2", "100 %"]])
    get "#{path}?as=percent&sort=s3&down=1"
    expect(grid_rows.map(&:first)).to eq(["Student 2", "Student 0", "Student 1"])
    expect(Nokogiri::HTML5(last_response.body).css("th[aria-sort]").map { |head| [head["aria-sort"], head["title"]] })
      .to eq([["descending", marsh_lesson.slide("s3").name]])
    get "#{path}?as=answer&sort=name&down=1"
    expect(grid_rows.map(&:first)).to eq(["Student 2", "Student 1", "Student 0"])
    expect(grid_rows.map(&:last).uniq.length).to eq(2)
    expect(grid_rows.first.last).to include(marsh_lesson.slide("s3").prompt.choices.find { |option| option.id == key }.name)
    get "#{path}?as=time"
    expect(grid_rows.map(&:last)).to eq(["–"] * 3)
    seat = Roost::Store::Seats.new.of(session.id).last.id
    Roost::Store::Deliveries.new.note(session.id, "s3", [seat])
    Roost::Store::Deliveries.new.backdate(seat, "s3", 7)
    get "#{path}?as=time&sort=s3"
    expect(grid_rows).to match([["Student 2", /\A[67] s\z/], ["Student 0", "–"], ["Student 1", "–"]])
    get "#{path}?as=nonsense&sort=nothing&order=x&only=y"
    expect([last_response.status, Nokogiri::HTML5(last_response.body).css("thead .is-only").length]).to eq([200, 1])
  end

  it "tell the lesson as it went, slide by slide" do
    held(key, wrong)
    get "/results/#{session.id}/timeline"
    page = Nokogiri::HTML5(last_response.body)
    expect(page.css(".timeline-block").length).to be >= 2
    names = page.css("tbody th").map(&:text)
    expect(names).to eq([marsh_lesson.slides.first.name, marsh_lesson.slide("s3").name])
    expect(page.css("tbody tr").last.css("td").map { |cell| cell.text.strip }[1]).to eq("2")
  end

  it "tell how the same question went before, and so does the question bank" do
    held(key, key, wrong)
    row = kept_session(account)
    command(row, "begin")
    command(row, "jump", slide: "s3")
    save(row, take_seat(row, "Ada").first, "s3", picked(wrong))
    command(row, "end")
    Roost::Operations::WriteEvidence.new.call([session.id, row.id])
    get "/results/#{row.id}/questions"
    link = Nokogiri::HTML5(last_response.body).at_css("a[href$='/sessions']")
    expect(link.text).to eq("Asked 2 times, 0 to 67 % right")
    get link["href"]
    cells = Nokogiri::HTML5(last_response.body).css("tbody tr").map { |each| each.css("td").map { |cell| cell.text.strip } }
    expect(cells.map { |each| each[1..2] }).to eq([["1", "0 %"], ["3", "67 %"]])
    Roost::Store::Bank.new.keep(account, [marsh_lesson.slide("s3")], taken_from: "Birds")
    get "/bank"
    expect(text).to include("Asked 2 times, 0 to 67 % right")
  end

  it "are a workbook, made in the background and fetched as a file by her who asked for it" do
    held(key, wrong)
    get "/results/#{session.id}/files"
    submit(Nokogiri::HTML5(last_response.body).at_css("#export-session_xlsx form"))
    follow_redirect!
    expect(text).to include("Making the workbook: 0 of 1 part")
    get "/results/#{session.id}/files/xlsx.file"
    expect(last_response.status).to eq(303)
    Roost::Operations::MakeExport.new.call(database[:exports].get(:id))
    get "/results/#{session.id}/files/xlsx", {}, "HTTP_HX_REQUEST" => "true"
    get Nokogiri::HTML5(last_response.body).at_css("a[download]")["href"]
    expect([last_response.status, last_response.body[0, 2],
            last_response["content-disposition"]]).to match([200, "PK", /Birds.*xlsx/])
    rook = teacher(email: "rook@heronsgate.example")
    expect(Roost::Operations::MakeExport.new.start(rook, "session_xlsx", session.id)).to be_nil
    database[:exports].update(created_at: Sequel.lit("created_at - interval '2 hours'"))
    expect { Roost::Jobs::ForgetExports.new({}).does }.to change { Dir[Roost.settings.var("exports", "*")].length }.to(0)
  end

  it "are a PDF with a bookmark each student, on A4 or Letter, and drawings side by side" do
    held(key, wrong)
    drawn = ->(slide, _value) { %(<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"/>) if slide.id == "s3" }
    allow(Roost::Operations::PaperPictures).to receive(:drawing).and_return(drawn)
    { "pdf" => /595.*x 841/, "letter" => /612 x 792/ }.each do |kind, size|
      post_form "/results/#{session.id}/files/#{kind}"
      export = database[:exports].order(:id).last[:id]
      Roost::Operations::MakeExport.new.call(export)
      get "/results/#{session.id}/files/#{kind}.file"
      expect([last_response.status, last_response.body[0, 5]]).to eq([200, "%PDF-"])
      path = Roost::Store::Exports.new.path(export)
      expect(`pdfinfo #{path}`).to match(size)
      words = `pdftotext #{path} -`
      expect(words).to include("Students by questions").and include("Student 1").and include("1/5")
      expect(last_response.body.scan("/Title").length).to be >= 5 # of the document, and five bookmarks
    end
  end

  it "say in the sheet when each handed in, what is right and what it is about, also where many gave the same" do
    held(key, key)
    seats = Roost::Store::Seats.new.of(session.id).map(&:id)
    times = ["2026-11-30 09:00:05+00", "2026-11-30 09:01:07+00"]
    seats.zip(times) { |id, time| database[:answers].where(seat_id: id).update(received_at: time) }
    get "/results/#{session.id}/results.csv"
    rows = CSV.parse(last_response.body.delete_prefix("\uFEFF"), headers: true)
    expect(rows.map { |row| row["Handed in"] }).to eq(%w[2026-11-30T09:00:05Z 2026-11-30T09:01:07Z])
    expect(rows.first.to_h).to include("Possible" => "100", "Right answer" => "Grey heron")
    workbook = Roost::Operations::SessionWorkbook.new.file(Roost::Store::Sessions.new.find(session.id))
    book = Tempfile.create(["results", ".xlsx"], binmode: true) do |file|
      file.write(workbook)
      file.flush
      Roo::Excelx.new(file.path).sheet("Answers").parse(headers: true).drop(1)
    end
    expect(book.map { |row| row["Handed in"] }).to eq(["2026-11-30 09:00:05 UTC", "2026-11-30 09:01:07 UTC"])
  end

  it "are handed to one student on paper, with nobody else's in it" do
    held(key, wrong)
    seat = Roost::Store::Seats.new.of(session.id).last
    get "/results/#{session.id}/students/#{seat.id}"
    submit(Nokogiri::HTML5(last_response.body).at_css("#export-seat_pdf form"))
    Roost::Operations::MakeExport.new.call(database[:exports].get(:id))
    get "/results/#{session.id}/students/#{seat.id}/pdf.file"
    words = `pdftotext #{Roost::Store::Exports.new.path(database[:exports].get(:id))} -`
    expect([last_response.status, words.include?("Student 1"), words.include?("Right: Grey heron")]).to eq([200, true, true])
    expect(words).not_to include("Student 0")
    rook = teacher(email: "rook@heronsgate.example")
    expect(Roost::Operations::MakeExport.new.start(rook, "seat_pdf", seat.id)).to be_nil
  end

  it "are listed page by page" do
    5.times { |at| database[:sessions].where(id: kept_session(account).id).update(title: "Lesson #{at}") }
    sign_in("falk@heronsgate.example")
    stub_const("Roost::Web::Results::ON_A_PAGE", 2)
    listed = -> { Nokogiri::HTML5(last_response.body).css("tbody th a").map(&:text) }
    seen = []
    path = "/results"
    while path
      get path
      seen << listed.call
      path = Nokogiri::HTML5(last_response.body).css("a.button").find { |link| link.text == "Earlier sessions" }&.[]("href")
    end
    expect(seen).to eq([["Lesson 4", "Lesson 3"], ["Lesson 2", "Lesson 1"], ["Lesson 0"]])
  end

  it "count for whom the teacher says that the seat was" do
    klass = Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm\nBo Lind").value)
    ada, bo = Roost::Store::Students.new.of_class(klass)
    database[:sessions].where(id: session.id).update(class_id: klass)
    seats = [take_seat(session, "Cat").first, take_seat(session, "Dog").first].map { |seat| seat[:id] }
    sign_in("falk@heronsgate.example")
    path = "/results/#{session.id}/students/#{seats.first}"
    post_form "#{path}/link", student: ada.id.to_s
    get path
    expect(text).to include("Counts for Ada Holm")
    other = "/results/#{session.id}/students/#{seats.last}"
    post_form "#{other}/link", student: ada.id.to_s
    expect([last_response.status, text]).to match([422, include("has a seat of their own in this session")])
    post_form "#{path}/link", student: ""
    post_form "#{path}/link", student: bo.id.to_s
    expect(Roost::Store::Seats.new.people(session.id)).to eq([bo.id])
    post_form "#{path}/link", student: "999999"
    expect(last_response.status).to eq(422)
  end

  it "are compared with the last three sessions of the same class" do
    klass = Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm").value)
    ada = Roost::Store::Students.new.of_class(klass).first
    lesson = kept_lesson(account)
    all = Array.new(4) do |number|
      row = Roost::Operations::StartSession.new.call(account, lesson, { "class_id" => klass.to_s, "entry" => "list" }).value
      command(row, "begin")
      command(row, "jump", slide: "s3")
      command(row, "open")
      token = Roost::Operations::JoinSession.new.call(row.code, "", student_id: ada.id).value
      save(row, Roost::Store::Seats.new.by_token(token), "s3", picked(number == 3 ? key : wrong))
      command(row, "end")
      row
    end
    database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
    row = Roost::Store::Sessions.new.find(all.last.id)
    results = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(row))
    happened = Roost::Operations::WhatHappened.new
    expect(happened.send(:before, row, results.record.seats)).to eq({ results.record.seats.first.id => [0r, 0r, 0r] })
  end
end

RSpec.describe "Who has what in a class" do
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }

  def page = Nokogiri::HTML5(last_response.body)

  before do
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm\nBo Lind").value)
    prompt = choice(texts: %w[A B], keys: %w[o1], subtopics: %w[food])
    slides = Array.new(3) { |at| slide("s#{at}", prompt: prompt.copy("p#{at}")) }
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: "Birds", slides: slides))
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1" }
    row = Roost::Operations::StartSession.new.call(account, lesson, form).value
    seats = Roost::Store::Students.new.of_class(klass).map do |student|
      Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(row.code, "", student_id: student.id).value)
    end
    command(row, "begin")
    slides.each do |each|
      command(row, "jump", slide: each.id)
      seats.zip(%w[o1 o2]) { |seat, option| save(row, seat, each.id, picked(option)) }
    end
    command(row, "end")
    sign_in("falk@heronsgate.example")
  end

  it "is a table, from which one comes to the questions behind each figure" do
    get "/classes/#{klass}/standards"
    expect(page.css("tbody tr").map { |row| row.text.split.join(" ") })
      .to eq(["Ada ✓has it: 100 % (3 marks, 44–100)", "Bo ○not yet: 0 % (3 marks, 0–56)"])
    get page.at_css("thead a")["href"]
    expect(page.text.split.join(" ")).to include("1 of 2 have it. Not yet: Bo.").and include("is below the line of 80 %")
    expect(page.css(".plain-list a").length).to eq(6)
  end

  it "takes another line, and nothing that is none" do
    get "/classes/#{klass}/standards?line=50&period=month"
    expect(page.at_css("#line")["value"]).to eq("50")
    get "/classes/#{klass}/standards?line=9999&period=x"
    expect([last_response.status, page.at_css("#line")["value"]]).to eq([200, "80"])
    get "/classes/#{klass}/standards/about?name=nothing"
    expect(last_response.status).to eq(404)
  end

  it "is nobody else's" do
    teacher(email: "rook@heronsgate.example")
    clear_cookies
    sign_in("rook@heronsgate.example")
    get "/classes/#{klass}/standards"
    expect(last_response.status).to eq(404)
  end
end

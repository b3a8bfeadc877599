# frozen_string_literal: true

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
      .to eq(["Ada ✓has it: 100 % (3 marks)", "Bo ○not yet: 0 % (3 marks)"])
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

RSpec.describe "The gradebook of a class" do
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:students) { Roost::Store::Students.new.of_class(klass) }

  def page = Nokogiri::HTML5(last_response.body)

  # @param given [Hash{Core::Student=>Array<String>}] what each picked; right is o1
  def hold(title, given, writing: nil)
    slides = Array.new(2) { |at| slide("s#{at}", prompt: choice(id: "p#{at}", texts: %w[A B], keys: %w[o1])) }
    slides << slide("w", prompt: writing(id: "pw")) if writing
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1", "title" => title }
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: title, slides: slides))
    row = Roost::Operations::StartSession.new.call(account, lesson, form).value
    seats = given.keys.to_h do |student|
      token = Roost::Operations::JoinSession.new.call(row.code, "", student_id: student.id).value
      [student, Roost::Store::Seats.new.by_token(token)]
    end
    command(row, "begin")
    slides.each_with_index do |each, at|
      command(row, "jump", slide: each.id)
      given.each do |student, picks|
        save(row, seats[student], each.id, at == 2 ? { "text" => [writing] } : picked(picks[at]))
      end
    end
    command(row, "end")
    [row, seats]
  end

  before do
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm\nBo Lind").value)
    ada, bo = students
    hold("Birds", { ada => %w[o1 o2], bo => %w[o1 o1] })
    hold("Food", { ada => %w[o1 o1] })
    sign_in("falk@heronsgate.example")
  end

  # What stands in the cells, without the explanations.
  def rows
    words = "text() | .//strong/text() | .//a/text() | .//s/text()"
    page.css("tbody tr").map { |row| row.css("th, td").map { |cell| cell.xpath(words).text.strip } }
  end

  it "has what each earned, and of whom who was not there nothing" do
    get "/classes/#{klass}/grades"
    expect(page.css("thead a").map(&:text)).to eq(%w[Food Birds])
    expect(rows).to eq([["Ada", "75 %", "100 %", "50 %"], ["Bo", "100 %", "", "100 %"]])
    expect(page.css("tbody tr")[1].css(".badge").map { |badge| badge["aria-label"] }).to eq(["not reached"])
  end

  it "is read as correct, points or grade, and leaves out the lowest" do
    get "/classes/#{klass}/grades?as=correct"
    expect(rows.first).to eq(["Ada", "3/4", "2/2", "1/2"])
    get "/classes/#{klass}/grades?as=grade&drop=1"
    top = Roost::Store::School.new.settings.top_grade.to_i.to_s
    expect(rows.first[1]).to eq(top)
    expect(page.css("tbody tr").first.css("s").map { |each| each["title"] }).to eq(["left out"])
    expect(page.css("tbody tr").first.at_css(".why").text).to include("the 1 lowest left out")
    get "/classes/#{klass}/grades?as=nonsense&drop=99"
    expect(last_response.status).to eq(200)
  end

  it "counts nothing that waits to be marked, and says that it waits" do
    row, seats = hold("Letters", { students[0] => %w[o1 o1], students[1] => %w[o2 o2] }, writing: "Dear aunt")
    Roost::Operations::MarkByHand.new.call(account, row.id, "w", { seats[students[0]][:id] => "1/2" })
    get "/classes/#{klass}/grades"
    expect(rows.map { |each| each[2] }).to eq(["83 %", "0 %"])
    expect(page.css("tbody tr")[1].css(".badge").map { |badge| badge["aria-label"] }).to include("still to be marked")
  end

  it "is a sheet, too, which says who was absent" do
    get "/classes/#{klass}/grades.csv?as=percent"
    table = CSV.parse(last_response.body.delete_prefix("\uFEFF"))
    expect(table.map { |line| line.values_at(0, 2, 3, 4) })
      .to match([["Student", /\ABirds/, /\AFood/, "All"], ["Ada Holm", "50 %", "100 %", "75 %"],
                 ["Bo Lind", "100 %", "absent", "100 %"]])
  end

  it "follows a corrected key" do
    session = Roost::Store::Sessions.new.all_of(account).find { |row| row.title == "Birds" }
    get "/classes/#{klass}/grades"
    Roost::Operations::CorrectQuestion.new.call(account, session.id, "s1", { "keys" => %w[o2] }, in_lesson: false)
    get "/classes/#{klass}/grades"
    expect(rows).to eq([["Ada", "100 %", "100 %", "100 %"], ["Bo", "50 %", "", "50 %"]])
  end

  it "is nobody else's" do
    teacher(email: "rook@heronsgate.example")
    clear_cookies
    sign_in("rook@heronsgate.example")
    %w[grades grades.csv].each do |what|
      get "/classes/#{klass}/#{what}"
      expect(last_response.status).to eq(404)
    end
  end
end

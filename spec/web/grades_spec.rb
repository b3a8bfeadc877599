# frozen_string_literal: true

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
    get "/classes/#{klass}/grades/rules"
    submit(page.at_css("form[action$='/rules']"), dropped: "1")
    get "/classes/#{klass}/grades?as=grade"
    top = Roost::Store::School.new.settings.top_grade.to_i.to_s
    expect(rows.first[1]).to eq(top)
    expect(page.css("tbody tr").first.css("s").map { |each| each["title"] }).to eq(["left out"])
    expect(page.css("tbody tr").first.at_css(".why").text).to include("the 1 lowest left out")
    get "/classes/#{klass}/grades?as=nonsense"
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
    session = Roost::Store::PastSessions.new.all_of(account).find { |row| row.title == "Birds" }
    get "/classes/#{klass}/grades"
    Roost::Operations::CorrectQuestion.new.call(account, session.id, "s1", { "keys" => %w[o2] }, in_lesson: false)
    get "/classes/#{klass}/grades"
    expect(rows).to eq([["Ada", "100 %", "100 %", "100 %"], ["Bo", "50 %", "", "50 %"]])
  end

  it "has columns of the teacher's own, typed or pasted, which count with the rest" do
    get "/classes/#{klass}/grades/columns/new"
    form = page.at_css("form.grade-column")
    about = { title: "Oral", on_date: "2030-01-07", possible: "10" }
    submit(form, **about, do: "paste", pasted: "Holm, Ada\t7,5\nBo Lind\texcused\nEve Nobody\t3")
    expect(page.at_css("[role=status]").text.split.join(" "))
      .to eq("2 students found: check what stands below, then save.“Eve Nobody 3”: nobody in this class is called that")
    expect(database[:grade_columns].count).to eq(0)
    submit(page.at_css("form.grade-column"))
    get "/classes/#{klass}/grades"
    expect(page.css("thead a").map(&:text)).to eq(%w[Oral Food Birds])
    # 7.5 of 10 points and 3 of 4 questions
    expect(rows.map { |row| row[1..2] }).to eq([["75 %", "75 %"], ["100 %", ""]])
    expect(page.css("tbody tr")[1].at_css(".tag").text).to eq("excused")
  end

  it "keeps what was typed where something of it can't be read, and saves nothing" do
    get "/classes/#{klass}/grades/columns/new"
    submit(page.at_css("form.grade-column"), title: "Oral", possible: "10", "points[#{students[0].id}]": "11",
                                             "points[#{students[1].id}]": "4")
    expect([last_response.status, page.at_css("[role=alert]").text])
      .to eq([422, "Ada Holm: points are a number from 0 to 10, or empty."])
    expect(page.css(".is-points").map { |field| field["value"] }).to eq(%w[11 4])
    expect(database[:grade_columns].count).to eq(0)
    submit(page.at_css("form.grade-column"), title: "", "points[#{students[0].id}]": "9")
    expect(page.at_css("[role=alert]").text).to eq("Give the column a name.")
  end

  # @return [String] path of its page
  def own_column(**points)
    form = { "title" => "Oral", "on_date" => "2030-01-07", "possible" => "10", "points" => points.transform_keys(&:to_s) }
    "/classes/#{klass}/grades/columns/#{Roost::Operations::KeepGradeColumn.new.create(account, klass, form).value}"
  end

  it "leaves what somebody else typed meanwhile, and records every change with what there was before" do
    path = own_column("#{students[0].id}": "5")
    get path
    mine = page.at_css("form.grade-column")
    get path
    submit(page.at_css("form.grade-column"), "points[#{students[1].id}]": "8")
    submit(mine, "points[#{students[0].id}]": "6")
    get path
    expect(page.css(".is-points").map { |field| field["value"] }).to eq(%w[6 8])
    get "/classes/#{klass}/grades/changes"
    changes = page.css("tbody tr").map { |row| row.css("td").drop(1).map { |cell| cell.text.strip } }
    expect(changes).to eq([["Ms Falk", "Ada Holm", "points, Oral", "5", "6"], ["Ms Falk", "Bo Lind", "points, Oral", "–", "8"],
                           ["Ms Falk", "Ada Holm", "points, Oral", "–", "5"], ["Ms Falk", "", "column added, Oral", "–", "–"]])
  end

  it "takes a column out and puts it back, and does not lower what is possible below what somebody has" do
    path = own_column("#{students[0].id}": "5")
    post_form "#{path}/out", out: "1"
    follow_redirect!
    expect(page.css("thead a").map(&:text)).to eq(%w[Food Birds])
    submit(page.at_css("form[action$='/out']"))
    get path
    submit(page.at_css("form.grade-column"), possible: "4")
    expect(page.at_css("[role=alert]").text).to include("Somebody has more points")
    get "/classes/#{klass}/grades"
    expect(rows.first[2]).to eq("50 %")
  end

  it "excuses from a lesson, and counts who was not there as 0 only where the teacher says so" do
    get "/classes/#{klass}/grades"
    food, birds = page.css("thead a").map { |link| link["href"] }
    get food
    submit(page.at_css("form.grade-column"), absent_zero: "1")
    get "/classes/#{klass}/grades"
    expect(rows[1]).to eq(["Bo", "50 %", "0 %", "100 %"])
    get birds
    submit(page.at_css("form.grade-column"), "points[#{students[1].id}]": "excused")
    get "/classes/#{klass}/grades"
    expect(rows[1]).to eq(["Bo", "0 %", "0 %", ""])
    get birds
    submit(page.at_css("form.grade-column"), "points[#{students[1].id}]": "")
    get "/classes/#{klass}/grades"
    expect(rows[1][1]).to eq("50 %")
    get "/classes/#{klass}/grades/changes"
    expect(page.css("tbody tr").map { |row| row.css("td")[3..].map { |cell| cell.text.strip } })
      .to eq([["points, Birds", "excused", "–"], ["points, Birds", "–", "excused"],
              ["0 for who was not there, Food", "no", "yes"]])
  end

  it "takes nothing from who came into the class later" do
    get "/classes/#{klass}/grades"
    get page.css("thead a").first["href"]
    submit(page.at_css("form.grade-column"), absent_zero: "1")
    database[:enrolments].where(student_id: students[1].id).update(began_on: Date.today + 2)
    get "/classes/#{klass}/grades"
    expect(rows[1]).to eq(["Bo", "100 %", "", "100 %"])
  end

  it "weighs categories, whose names and weights can be changed and taken away" do
    own_column("#{students[0].id}": "0")
    get "/classes/#{klass}/grades/rules"
    submit(page.at_css("form[action$='/rules']"), "categories[0][name]": "Oral", "categories[0][weight]": "1", weight: "3")
    get "/classes/#{klass}/grades"
    get page.css("thead a").find { |link| link.text == "Oral" }["href"]
    submit(page.at_css("form.grade-column"), category: page.at_css("#category option:last-child")["value"])
    get "/classes/#{klass}/grades"
    expect(rows.first[1]).to eq("56 %") # 3/4 × 75 %
    expect(page.at_css("thead small").text).to include("Oral")
    get "/classes/#{klass}/grades/rules"
    submit(page.at_css("form[action$='/rules']"), "categories[0][weight]": "heavy")
    expect(page.at_css("[role=alert]").text).to eq("A weight is a number from 0 to 100.")
    expect(page.at_css("input[name='categories[0][weight]']")["value"]).to eq("heavy")
    submit(page.at_css("form[action$='/rules']"), "categories[0][name]": "", "categories[0][weight]": "1")
    get "/classes/#{klass}/grades"
    expect(rows.first[1]).to eq("21 %") # 3 of 14
  end

  it "is read by the school's own table of grades" do
    form = Roost::Store::School.new.settings.to_form.merge("name" => "Heronsgate", "grade_table" => "90 A\n70 B")
    expect(Roost::Operations::KeepSchool.new.change(account, form)).to be_ok
    get "/classes/#{klass}/grades?as=grade"
    expect(rows.map { |row| row[1] }).to eq(%w[B A])
  end

  it "is nobody else's" do
    teacher(email: "rook@heronsgate.example")
    clear_cookies
    sign_in("rook@heronsgate.example")
    %w[grades grades.csv grades/rules grades/changes grades/columns/new].each do |what|
      get "/classes/#{klass}/#{what}"
      expect(last_response.status).to eq(404)
    end
    # What somebody signed in elsewhere sends for it is not taken either.
    rook = database[:accounts].where(email: "rook@heronsgate.example").get(:id)
    form = { "title" => "Oral", "on_date" => "2030-01-07", "possible" => "10" }
    expect(Roost::Operations::KeepGradeColumn.new.create(rook, klass, form)).to be_nil
    expect(Roost::Operations::KeepGradeRules.new.call(rook, klass, {})).to be_nil
  end
end

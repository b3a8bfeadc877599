# frozen_string_literal: true

RSpec.describe "A class over time" do
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:students) { Roost::Store::Students.new.of_class(klass) }

  def page = Nokogiri::HTML5(last_response.body)

  def text = page.text.split.join(" ")

  # @param given [Hash{Integer=>String}] place in the class to what they pick and what they think of the lesson
  def hold(title, given, days: 0)
    slides = [slide("s1", prompt: choice(id: "p1", texts: %w[A B], keys: %w[o1])),
              slide("s2", heading: "Did you get there?", prompt: choice(id: "p2", texts: %w[Yes No], poll: true, closing: true))]
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: title, slides: slides))
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1", "title" => title }
    row = Roost::Operations::StartSession.new.call(account, lesson, form).value
    command(row, "begin")
    seats = given.keys.to_h do |at|
      [at,
       Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(row.code, "", student_id: students[at].id).value)]
    end
    slides.each_with_index do |each, place|
      command(row, "jump", slide: each.id)
      given.each { |at, picks| save(row, seats[at], each.id, picked("o#{picks[place]}")) }
    end
    command(row, "end")
    Roost::Store::SessionTimes.new.put_back(row.id, by: days * 86_400, lasting: 1800) if days.positive?
    row
  end

  before do
    names = %w[Ada Bo Cleo Dov Eda].map { |name| "#{name} Holm" }.join("\n")
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste(names).value)
    hold("Birds", { 0 => "11", 1 => "11", 2 => "22", 3 => "12", 4 => "21" }, days: 30)
    hold("Food", { 0 => "11", 1 => "22", 2 => "21", 3 => "22", 4 => "21" })
    sign_in("falk@heronsgate.example")
  end

  it "tells who came, what was right week by week, what was missed, and what the class thought" do
    get "/classes/#{klass}/over-time"
    expect(page.css(".time-dot title").map(&:text)).to match([/60 %/, /20 %/])
    rows = page.css("tbody tr").map { |row| row.css("th, td").drop(1).map { |cell| cell.text.strip } }
    expect(rows).to eq([["Food", "5 of 5", "20 %"], ["Birds", "5 of 5", "60 %"]])
    expect(text).to include("Most missed").and include("20 % right, of 5")
    closings = page.css(".closing").map do |each|
      [each.at_css("a").text, each.css("li").map do |said|
        said.text.split.join(" ")
      end]
    end
    expect(closings).to eq([["Food", ["A Yes 3", "B No 2"]], ["Birds", ["A Yes 3", "B No 2"]]])
  end

  it "shows a student's line, and names nobody else in it" do
    get "/classes/#{klass}/students/#{students[1].id}"
    expect(page.css(".time-dot title").map(&:text)).to match([/\ABirds, .*: 100 %/, /\AFood, .*: 0 %/])
    expect(page.css("#student-results").text).not_to match(/Ada|Cleo/)
    expect(page.css(".time-band").length).to eq(1)
  end

  it "says so where there is nothing yet, and is nobody else's" do
    other = Roost::Operations::KeepClass.new.create(account, { "name" => "8 Avocet" }).value
    get "/classes/#{other}/over-time"
    expect(text).to include("Nothing yet")
    teacher(email: "rook@heronsgate.example")
    clear_cookies
    sign_in("rook@heronsgate.example")
    get "/classes/#{klass}/over-time"
    expect(last_response.status).to eq(404)
  end
end

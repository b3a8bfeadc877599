# frozen_string_literal: true

RSpec.describe "Groups of a class" do
  let(:account) { teacher }
  let(:klass) { Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value }
  let(:students) { Roost::Store::Students.new.of_class(klass) }
  let(:slides) do
    %w[food food food weather weather weather].each_with_index.map do |tag, at|
      slide("s#{at}", prompt: choice(id: "p#{at}", texts: %w[A B], keys: %w[o1], subtopics: [tag]))
    end
  end

  # Ada and Bo lack food, Cleo and Dov weather.
  before do
    names = Roost::Core::ClassList.paste("Ada Holm\nBo Lind\nCleo Marsh\nDov Night").value
    Roost::Operations::FillClass.new.fill(account, klass, names)
    form = { "class_id" => klass.to_s, "entry" => "list", "opens_itself" => "1" }
    lesson = kept_lesson(account, Roost::Core::Lesson.new(title: "B", slides: slides))
    row = Roost::Operations::StartSession.new.call(account, lesson, form).value
    seats = students.map do |student|
      Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(row.code, "", student_id: student.id).value)
    end
    command(row, "begin")
    slides.each_with_index do |each, at|
      command(row, "jump", slide: each.id)
      seats.each_with_index { |seat, who| save(row, seat, each.id, picked((who < 2) == (at < 3) ? "o2" : "o1")) }
    end
    command(row, "end")
    sign_in("falk@heronsgate.example")
  end

  def page = Nokogiri::HTML5(last_response.body)

  def shown = page.css(".groups section").map { |group| group.css("strong").map(&:text) }

  it "are proposed from what each lacks, or mixed" do
    get "/classes/#{klass}/groups?way=alike&size=2"
    expect(shown.map(&:sort)).to match_array([%w[Ada Bo], %w[Cleo Dov]])
    expect(page.at_css(".groups .quiet").text).to match(/food \d+ %, weather \d+ %/)
    get "/classes/#{klass}/groups?way=mixed&size=2&about[]=food"
    expect(shown.map { |group| (group & %w[Cleo Dov]).length }).to eq([1, 1])
  end

  it "are moved by hand, kept as the groups of the class, from which teams are made, and taken back" do
    Roost::Store::Students.new.regroup(klass, students.first.id, "Blue")
    get "/classes/#{klass}/groups?way=alike&size=2"
    submit(page.at_css(".groups").parent, **students.to_h do |student|
      [:"groups[#{student.id}]", student.shown_name == "Dov" ? "" : "2"]
    end)
    kept = -> { Roost::Store::Students.new.of_class(klass).map(&:group) }
    expect(kept.call).to eq(["Group 2", "Group 2", "Group 2", ""])
    expect(page.at_css("[role=status]").text).to include("From the class's groups")
    expect(Roost::Core::Session::Team.of_groups(kept.call).map(&:first)).to eq(["Group 2"])
    submit(page.at_css("form[action*='/restore']"))
    expect(kept.call).to eq(["Blue", "", "", ""])
  end

  it "refuse what is no group and are nobody else's" do
    get "/classes/#{klass}/groups"
    submit(page.at_css(".groups").parent, "groups[#{students.first.id}]": "99")
    expect(last_response.status).to eq(422)
    rook = teacher(email: "rook@heronsgate.example")
    expect(Roost::Operations::GroupClass.new.keep(rook, klass, { students.first.id => "1" })).to be_nil
    expect(Roost::Operations::GroupClass.new.restore(rook, klass, { students.first.id => "x" })).to be_nil
    get "/classes/#{klass}/groups?way=x&size=99&seed=-1&about[]=nothing&about[][a]=1"
    expect(last_response.status).to eq(200)
  end
end

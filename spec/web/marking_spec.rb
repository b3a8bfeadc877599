# frozen_string_literal: true

RSpec.describe "Marks by hand" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }
  let(:path) { "/results/#{session.id}/questions/s4/marks" }

  # A question is asked and answered, the lesson ends, and its teacher signs in.
  def asked(slide_id)
    command(session, "begin")
    command(session, "jump", slide: slide_id)
    command(session, "open")
    yield
    command(session, "end")
    database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
    sign_in("falk@heronsgate.example")
  end

  def written(*texts)
    asked("s4") do
      texts.each_with_index { |text, at| save(session, take_seat(session, "Student #{at}").first, "s4", { "text" => [text] }) }
    end
  end

  def seats = Roost::Store::Seats.new.of(session.id)

  def page = Nokogiri::HTML5(last_response.body)

  def groups
    page.css(".mark-group").map { |group| [group.at_css(".review-text").text.strip, group["class"].include?("is-done")] }
  end

  def give(mark, *at, **more)
    post path, { "mark" => mark, "seats" => seats.values_at(*at).map { |seat| seat.id.to_s }, **more.transform_keys(&:to_s) },
         "HTTP_X_CSRF_TOKEN" => @token
  end

  def results = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id)))

  def statuses = results.lines.map { |line| line.outcomes["s4"].status }

  it "lie in groups of those alike, the largest first, and what is marked goes to the end" do
    written("By smell", "By the stars", "by the  stars.", "The moon")
    get path
    expect(groups).to eq([["By the stars", false], ["By smell", false], ["The moon", false]])
    expect(page.text.split.join(" ")).to include("4 answers left to mark, 0 marked.")
    give("3/4", 1, 2)
    expect(groups.last).to eq(["By the stars", true])
    expect(statuses).to eq(%i[to_mark part part to_mark])
    expect(results.lines.map(&:share)).to eq([nil, 3/4r, 3/4r, nil])
  end

  it "lie together where they are similar, and every wording of a group is seen before it is marked" do
    written("They follow the older birds.", "They follow older birds", "They look at the stars.", "they follow the older birds")
    get path
    shown = page.css(".mark-group").map { |group| group.css(".review-text").map { |text| text.text.strip } }
    expect(shown).to eq([["They follow the older birds.", "They follow older birds"], ["They look at the stars."]])
    expect(page.at_css(".mark-single").text).to include("“They follow older birds”")
  end

  it "can be undone, one by one and at once" do
    written("By smell", "By the stars", "by the stars")
    give("1/4", 1)
    give("1", 1, 2)
    form = page.at_css("form.note")
    post path, form.css("input").to_h { |input| [input["name"], input["value"]] }, "HTTP_X_CSRF_TOKEN" => @token
    expect(last_response.status).to eq(303)
    record = Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id))
    expect(seats.map { |seat| record.hand_mark("s4", seat.id) }).to eq([nil, 1/4r, nil])
  end

  it "stand before the key, survive a corrected one, and go when they are taken back" do
    command(session, "begin")
    command(session, "jump", slide: "s3")
    command(session, "open")
    key = marsh_lesson.slide("s3").prompt.settings["keys"].first
    wrong = (%w[o1 o2 o3 o4] - [key]).first
    save(session, take_seat(session, "Ada").first, "s3", picked(wrong))
    command(session, "end")
    sign_in("falk@heronsgate.example")
    ada = seats.first.id
    database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
    mark = -> { results.record.outcome("s3", ada).mark }
    Roost::Operations::MarkByHand.new.call(account, session.id, "s3", { ada => "1/2" })
    expect(mark.call).to eq(1/2r)
    fixed = Roost::Operations::CorrectQuestion.new.call(account, session.id, "s3", { "keys" => [wrong] }, in_lesson: false)
    expect([fixed.ok?, mark.call]).to eq([true, 1/2r])
    Roost::Operations::MarkByHand.new.call(account, session.id, "s3", { ada => "" })
    expect(mark.call).to eq(1)
    get "/results/#{session.id}/students/#{ada}"
    expect(last_response.body).not_to include("The teacher gave")
  end

  it "are told to nobody before they are let out: not in the copy, not on the student's page, not in what they earned" do
    written("By smell", "By the stars")
    give("1", 0)
    row = Roost::Store::Sessions.new.find(session.id)
    ids = seats.map(&:id)
    own = -> { Roost::Operations::OwnCopy.new.call(row, ids[0]).pages.find { |each| each.slide.id == "s4" }.outcome.mark }
    earned = lambda do
      Roost::Operations::WriteEvidence.new.call([session.id])
      evidence = Roost::Store::Evidence.new
      [evidence.seat_results(ids, told: true).transform_values(&:share), database[:evidence].where(told: true).count]
    end
    expect(own.call).to be_nil
    expect(earned.call).to eq([{ ids[0] => nil, ids[1] => nil }, 0])
    expect(Roost::Store::Evidence.new.seat_results(ids).transform_values(&:share)).to eq({ ids[0] => 1, ids[1] => nil })
    shown = lambda do
      get Roost::Web::Copies.path(ids[0])
      page.text.split.join(" ")[/Your teacher gave \S+ of 1|✓ Right/]
    end
    expect(shown.call).to be_nil
    post "#{path}/released", { "released" => "1" }, "HTTP_X_CSRF_TOKEN" => @token
    expect([own.call, shown.call]).to eq([1, "✓ Right"])
    expect(page.text).to include("Your teacher gave 1 of 1.")
    expect(earned.call).to eq([{ ids[0] => 1, ids[1] => nil }, 1])
    post "#{path}/released", { "released" => "0" }, "HTTP_X_CSRF_TOKEN" => @token
    expect([own.call, earned.call.first[ids[0]]]).to eq([nil, nil])
  end

  it "of a question with a key tell nothing in the copy while another class still has the question" do
    command(session, "begin")
    command(session, "jump", slide: "s3")
    command(session, "open")
    key = marsh_lesson.slide("s3").prompt.settings["keys"].first
    save(session, take_seat(session, "Ada").first, "s3", picked(key))
    command(session, "end")
    database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
    marking = Roost::Operations::MarkByHand.new
    marking.call(account, session.id, "s3", { seats.first.id => "1" })
    marking.release(account, session.id, "s3", true)
    copy = lambda do
      get Roost::Web::Copies.path(seats.first.id)
      page.text.split.join(" ")[/Your teacher gave|✓ Right/]
    end
    other = Roost::Operations::StartSession.new.call(account, session.lesson_id, {}).value
    expect(copy.call).to be_nil
    command(other, "begin")
    command(other, "end")
    expect(copy.call).to eq("✓ Right")
  end

  it "are one of five, of who answered, of a session of hers" do
    written("By smell", "")
    give("2", 0)
    expect([last_response.status, last_response.body.include?("A mark is 0, ¼, ½, ¾ or 1.")]).to eq([422, true])
    give("1", 0)
    post path, { "seats" => [seats.first.id.to_s] }, "HTTP_X_CSRF_TOKEN" => @token # no button pressed
    expect([last_response.status, database[:hand_marks].count]).to eq([422, 1])
    give("", 0)
    give("1", 1) # who wrote nothing
    expect(database[:hand_marks].count).to eq(0)
    other = teacher(email: "rook@heronsgate.example")
    seat = seats.first.id
    operation = Roost::Operations::MarkByHand.new
    expect(operation.call(other, session.id, "s4", { seat => "1" })).to be_nil
    expect(operation.call(account, session.id, "nowhere", { seat => "1" })).to be_nil
    expect(operation.release(other, session.id, "s4", true)).to be_nil
  end

  it "hide names where that is asked for, and wait in plain sight" do
    written("By smell", "By the stars")
    give("1", 0)
    get "#{path}?names=0"
    expect(page.at_css(".mark-groups").text).not_to include("Student 0")
    expect(page.css(".mark-answer a")).to be_empty
    get "/results/#{session.id}"
    expect(page.at_css(".headline").text.split.join(" ")).to include("1 answer still to be marked.")
    get "/results/#{session.id}/questions"
    expect(page.text).to include("left to mark")
    get "/results"
    expect(page.css(".tag").map(&:text)).to include("1 to mark")
    give("0", 1)
    get "/results"
    expect(page.text).not_to include("to mark")
  end

  describe "by a rubric" do
    let(:rubric) { "Content: missing 0, in part 1, complete 2\nLanguage: hard to read 0, clear 1" }
    let(:session) do
      marked = marsh_lesson.slide("s4").prompt.with_settings("rubric" => rubric, "rubric_shown" => true)
      slides = marsh_lesson.slides.map { |each| each.id == "s4" ? each.with(prompt: marked) : each }
      kept_session(account, marsh_lesson.with(slides: slides))
    end

    it "are levels of each criterion, kept and told with them" do
      written("By smell", "By the stars")
      get path
      form = page.at_css(".mark-group form")
      expect(form.css("legend").map(&:text)).to eq(%w[Content Language])
      submit(form, "levels[0]": "1", "levels[1]": "1")
      expect(results.lines.first.outcomes["s4"].mark).to eq(2/3r)
      expect(page.css(".mark-group.is-done input[checked]").map { |input| input["value"] }).to eq(%w[1 1])
      get "/results/#{session.id}/students/#{seats.first.id}"
      expect(page.text).to include("Content: in part (1 of 2), Language: clear (1 of 1)")
      get Roost::Web::Copies.path(seats.first.id)
      expect(page.text).not_to include("in part (1 of 2)")
      post "#{path}/released", { "released" => "1" }, "HTTP_X_CSRF_TOKEN" => @token
      get Roost::Web::Copies.path(seats.first.id)
      expect(page.text).to include("Content: in part (1 of 2)")
    end

    it "need a level for each criterion, and are undone with their levels" do
      written("By smell")
      get path
      submit(page.at_css(".mark-group form"), "levels[0]": "1")
      expect([last_response.status, page.text]).to match([422, include("Choose a level for each criterion.")])
      [%w[1 0], %w[2 1]].each do |content, language|
        get path
        submit(page.at_css(".mark-group form"), "levels[0]": content, "levels[1]": language)
      end
      submit(page.at_css("form.note"))
      expect(results.lines.first.outcomes["s4"].mark).to eq(1/3r)
    end

    it "is shown to students while they answer, where the teacher wants that" do
      command(session, "begin")
      command(session, "jump", slide: "s4")
      command(session, "open")
      _, token = take_seat(session, "Ada")
      get "/seat/#{token}"
      expect(page.at_css("details.hint").text.split.join(" ")).to include("How this is marked").and include("complete (2)")
    end
  end

  it "are given in points of the question, too" do
    written("By smell")
    get path
    submit(page.at_css(".mark-points"), points: "62,5")
    expect(results.lines.first.outcomes["s4"].mark).to eq(5/8r)
    expect(page.at_css(".mark-points input.is-points")["value"]).to eq("62.5")
    submit(page.at_css(".mark-points"), points: "101")
    expect([last_response.status, page.text]).to match([422, include("Points are a number from 0 to 100, in halves.")])
  end

  it "come with stamps from the teacher's own list and with words, undone together" do
    written("By smell", "By the stars", "by the stars")
    get path
    submit(page.at_css("form[action$='/stamps']"), stamps: "Well argued = 1\nSay why = ½\nLovely")
    get path
    form = page.at_css(".mark-group form[action*='/stamp?']")
    submit(form, stamp: form.css("button")[1]["value"])
    comments = -> { seats.map { |seat| Roost::Store::Comments.new.of([seat.id])[[seat.id, "s4"]]&.of(1).to_s } }
    expect([statuses, comments.call]).to eq([%i[to_mark part part], ["", "Say why", "Say why"]])
    group = page.css(".mark-group").find { |each| each.text.include?("By the stars") }
    submit(group.at_css("form[action*='/comment?']"), text: "And how?")
    expect(comments.call).to eq(["", "Say why\nAnd how?", "Say why\nAnd how?"])
    submit(page.at_css("form.note"))
    expect(comments.call).to eq(["", "Say why", "Say why"])
    submit(page.at_css("form[action$='/stamps']") || (get(path) && page.at_css("form[action$='/stamps']")), stamps: "Good = 2/3")
    expect([last_response.status, page.text]).to match([422, include("the mark of a stamp is 0, 1/4, 1/2, 3/4 or 1")])
    rook = teacher(email: "rook@heronsgate.example")
    stamp = Roost::Store::Stamps.new.of(account).first.id
    expect(Roost::Operations::StampAnswers.new.call(rook, session.id, "s4", [seats.first.id], stamp)).not_to be_ok
    expect(Roost::Operations::StampAnswers.new.comment(rook, session.id, "s4", [seats.first.id], "x")).to be_nil
  end

  it "are stamped for all who are named or for none, and nothing is kept of what is refused" do
    written("By smell", "By the stars")
    stamps = Roost::Operations::StampAnswers.new
    stamps.keep(account, "Well argued = 1")
    stamp = Roost::Store::Stamps.new.of(account).first.id
    Roost::Operations::CommentAnswer.new.call(account, session.id, seats.last.id, "s4", "x" * 995)
    done = stamps.call(account, session.id, "s4", seats.map(&:id), stamp)
    expect(done.reason).to include("1 000 characters is the most")
    expect([statuses, database[:comments].count]).to eq([%i[given given], 1])
    other = kept_session(account)
    stranger = take_seat(other, "Cleo").first[:id]
    expect(stamps.call(account, session.id, "s4", [seats.first.id, stranger], stamp)).to be_nil
    expect([statuses, database[:comments].count]).to eq([%i[given given], 1])
  end

  describe "by two" do
    let!(:rook) { teacher(email: "rook@heronsgate.example", name: "Mr Rook") }

    it "are asked of a colleague, who sees no names and whose marks count nowhere, and are compared" do
      written(*Array.new(10) { |at| "Answer #{at}" })
      database[:seats].update(name: Sequel.join(["Sorrel ", :id]))
      get path
      submit(page.at_css("#second-marker form:last-of-type"), email: "nobody@heronsgate.example")
      expect(last_response.status).to eq(422)
      get path
      submit(page.at_css("#second-marker form:last-of-type"), email: "rook@heronsgate.example")
      ours = seats.each_with_index.to_h { |seat, at| [seat.id, at < 5 ? "1" : "0"] }
      theirs = seats.each_with_index.to_h { |seat, at| [seat.id, at < 6 ? "1" : "0"] }
      Roost::Operations::MarkByHand.new.call(account, session.id, "s4", ours)
      clear_cookies
      sign_in("rook@heronsgate.example")
      get "/results"
      get page.at_css(".note a")["href"]
      expect([page.css(".mark-group").length, page.css(".mark-single li").length]).to eq([1, 10])
      expect(page.text).not_to include("Sorrel")
      expect(Roost::Operations::MarkSecond.new.call(rook, session.id, "s4", theirs)).to be_ok
      expect(results.lines.map { |line| line.outcomes["s4"].mark }).to eq(([1] * 5) + ([0] * 5))
      get path
      expect(last_response.status).to eq(404)
      clear_cookies
      sign_in("falk@heronsgate.example")
      get path
      get page.at_css("#second-marker a")["href"]
      # po = 0.9, pe = 0.5·0.6 + 0.5·0.4 = 0.5, κ = 0.8
      expect(page.text.split.join(" ")).to include("you gave the same to 90 % of 10 answers; κ = 0.80")
      expect(page.css("tbody tr").first.text).to include("differs")
      submit(page.css("form").find { |form| form.text.split.join(" ").include?("Take Mr Rook's") })
      expect(results.lines.count { |line| line.outcomes["s4"].mark == 1 }).to eq(6)
    end

    it "of a question that nobody asked them to mark are refused" do
      written("By smell")
      second = Roost::Operations::MarkSecond.new
      expect(second.call(rook, session.id, "s4", { seats.first.id => "1" })).to be_nil
      expect(second.ask(rook, session.id, "s4", "falk@heronsgate.example")).to be_nil
      expect(second.ask(account, session.id, "s4", "falk@heronsgate.example")).not_to be_ok
      second.ask(account, session.id, "s4", "rook@heronsgate.example")
      expect(second.call(rook, session.id, "s3", { seats.first.id => "1" })).to be_nil
      expect(second.call(rook, session.id, "s4", { seats.first.id => "1" })).to be_ok
      second.ask_no_more(account, session.id, "s4", rook)
      expect([second.call(rook, session.id, "s4", {}), database[:second_marks].count]).to eq([nil, 0])
    end
  end

  describe "with words" do
    # What one reads in the copy, and on their page, of what the teacher wrote.
    def read
      get Roost::Web::Copies.path(seats.first.id)
      page.css(".answer-comment").map(&:text)
    end

    it "keeps the words back until students may see the marks" do
      written("Rain", "Fog")
      Roost::Operations::CommentAnswer.new.call(account, session.id, seats.first.id, "s4", "Say where from")
      expect(read).to eq(["Say where from"])
      give("1/2", 1)
      expect(read).to eq([])
      Roost::Operations::MarkByHand.new.release(account, session.id, "s4", true)
      expect(read).to eq(["Say where from"])
    end
  end

  describe "over cards" do
    let(:session) do
      board = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: {})
      kept_session(account, Roost::Core::Lesson.new(title: "Sallowmere", slides: [slide("s1", prompt: board)]))
    end
    let(:slide_id) { "s1" }
    let(:cards) { [["p1", "Warm air holds more <water> than cold air does, and rain is what it lets go"], ["p3", "Fog"]] }
    let(:red) { [{ "tool" => "pen", "colour" => "rust", "points" => [50, 50, 300, 300] }] }
    let(:path) { "/results/#{session.id}/students/#{seats.first.id}/#{slide_id}/drawn-on" }

    before do
      posts = cards.map { |id, text| { "id" => id, "text" => text, "emoji" => "", "at" => 0 } }
      given = { "posts" => [JSON.generate(posts)], "likes" => ["[]"], "writing" => [""] }
      asked(slide_id) { save(session, take_seat(session, "Ada").first, slide_id, given) }
    end

    def draw(button: nil)
      post_form page.at_css("form.draw-on")["action"], **{ strokes: JSON.generate(red), next: button }.compact
      expect(last_response.status).to eq(303)
    end

    it "are drawn one card after another, without the name where names are hidden, and seen with the marks" do
      get "/results/#{session.id}/questions/#{slide_id}/marks?names=0"
      get page.css("a").find { |link| link.text == "Draw on it" }["href"]
      expect([page.at_css("h1").text, page.text.include?("Ada")]).to eq(["Draw on card 1 of 2", false])
      lines = page.css(".sheet-under text").map(&:text)
      expect([lines.length, lines.join(" ")]).to eq([2, cards[0][1]])
      draw(button: "p3")
      get last_response["Location"]
      expect([page.at_css("h1").text, page.text.include?("Ada")]).to eq(["Draw on card 2 of 2", false])
      draw
      expect(last_response["Location"]).to include("/marks?names=0#group-")
      get last_response["Location"]
      expect(page.css(".mark-group a").map(&:text)).to eq(["✎ Change your drawing"])
      get "/results/#{session.id}/students/#{seats.first.id}"
      expect(page.css(".sheet-strokes path, .sheet-strokes polyline").length).to eq(2)
      get Roost::Web::Copies.path(seats.first.id)
      expect(page.css(".sheet-strokes > *").length).to eq(0)
      Roost::Operations::MarkByHand.new.release(account, session.id, slide_id, true)
      get Roost::Web::Copies.path(seats.first.id)
      expect(page.css(".sheet-strokes > *").length).to eq(2)
    end

    it "are of cards that there are" do
      get "#{path}?part=p2"
      expect(last_response.status).to eq(404)
      post_form "#{path}?part=p2", strokes: JSON.generate(red)
      expect(last_response.status).to eq(422)
      expect(database[:drawn_on].count).to eq(0)
    end
  end

  describe "over a sketch" do
    let(:strokes) { [{ "tool" => "pen", "colour" => "ink", "points" => [10, 10, 200, 200] }] }
    let(:red) { [{ "tool" => "ellipse", "colour" => "ink", "points" => [50, 50, 300, 300] }] }
    let(:slide_id) { marsh_lesson.prompts.find { |slide| slide.prompt.kind == "sketch" }.id }

    before do
      given = { "strokes" => JSON.generate(strokes) }
      asked(slide_id) { save(session, take_seat(session, "Ada").first, slide_id, given) }
    end

    def given = Roost::Operations::ValueGiven.new.call(session, slide_id, seats.first.id)["strokes"]

    it "are drawn beside it, never in it, and seen by the student with the marks" do
      get "/results/#{session.id}/questions/#{slide_id}/marks"
      get page.css("a").find { |link| link.text == "Draw on it" }["href"]
      before = given
      expect(page.css(".sheet-under > *").length).to eq(1)
      submit(page.at_css("form.draw-on"), strokes: JSON.generate(red))
      expect([last_response.status, given]).to eq([303, before])
      get "/results/#{session.id}/students/#{seats.first.id}"
      expect(page.css(".review-sketch .sheet-strokes ellipse").length).to eq(1)
      get Roost::Web::Copies.path(seats.first.id)
      expect(page.css("ellipse").length).to eq(0)
      Roost::Operations::MarkByHand.new.release(account, session.id, slide_id, true)
      get Roost::Web::Copies.path(seats.first.id)
      expect(page.css(".sheet-strokes ellipse").length).to eq(1)
      expect(page.text).to include("With the teacher's drawing:")
      path = "/results/#{session.id}/students/#{seats.first.id}/#{slide_id}/drawn-on"
      get path
      expect(JSON.parse(page.at_css("input[name=strokes]")["value"]).length).to eq(1)
      submit(page.at_css("form.draw-on"), strokes: "[]")
      expect(database[:drawn_on].count).to eq(0)
    end

    it "are bounded, and of a session of hers" do
      path = "/results/#{session.id}/students/#{seats.first.id}/#{slide_id}/drawn-on"
      ["{", "7", JSON.generate([{ "tool" => "axe" }]), "[" * 90, "x" * 200_001].each do |text|
        post_form path, strokes: text
        expect(last_response.status).to eq(422)
      end
      rook = teacher(email: "rook@heronsgate.example")
      draw = Roost::Operations::DrawOnAnswer.new
      expect(draw.call(rook, session.id, seats.first.id, slide_id, "", JSON.generate(red))).to be_nil
      expect(draw.call(account, session.id, seats.first.id, "s3", "", JSON.generate(red))).not_to be_ok
      expect(draw.call(account, session.id, seats.first.id, slide_id, "p1", JSON.generate(red))).not_to be_ok
    end
  end
end

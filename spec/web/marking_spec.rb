# frozen_string_literal: true

RSpec.describe "Marks by hand" do
  let(:account) { teacher }
  let(:session) { kept_session(account) }
  let(:path) { "/results/#{session.id}/questions/s4/marks" }

  # Students write what is said, and the lesson ends.
  def written(*texts)
    command(session, "begin")
    command(session, "jump", slide: "s4")
    command(session, "open")
    texts.each_with_index { |text, at| save(session, take_seat(session, "Student #{at}").first, "s4", { "text" => [text] }) }
    command(session, "end")
    database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
    sign_in("falk@heronsgate.example")
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
end

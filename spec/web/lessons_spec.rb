# frozen_string_literal: true

RSpec.describe "The builder's saves" do
  let(:account) { teacher }
  let(:id) { kept_lesson(account) }

  before do
    id
    sign_in
  end

  def lesson = Roost::Store::Lessons.new.find(account, id).lesson

  def save(path, **fields)
    post("/lessons/#{id}#{path}", fields.transform_keys(&:to_s), "HTTP_X_CSRF_TOKEN" => @token, "HTTP_HX_REQUEST" => "true")
  end

  it "saves a slide with its question and answers with the builder's parts" do
    save("/slides/s2", rev: 1, heading: "Seen one?", text: "", notes: "wait",
                       prompt: { option_ids: %w[o1 o2], option_texts: %w[Yes No], keys: ["o1"] })
    expect(last_response.body).to include("Seen one?", "Saved ")
    expect(lesson.slide("s2").prompt).to be_keyed
    expect(lesson.slide("s2").notes).to eq("wait")
  end

  it "adds up the minutes that slides are planned to take, and refuses what is none" do
    save("/slides/s1", rev: 1, minutes: "5")
    save("/slides/s2", rev: 1, minutes: "12")
    expect(Nokogiri::HTML5(last_response.body).text).to include("17 min planned")
    save("/slides/s2", rev: 2, minutes: "a while", heading: "kept?")
    expect([last_response.status,
            last_response.body]).to match([422, include("Planned minutes are a whole number from 1 to 240")])
    save("/slides/s2", rev: 2, minutes: "12", for_class: "0")
    get "/lessons/#{id}"
    expect(last_response.body).to include("5 min planned")
    save("/slides/s1", rev: 2, minutes: "")
    expect(lesson.planned_minutes).to be_nil
  end

  it "refuses an overwritten version with 422 and one sentence" do
    save("/slides/s1", rev: 1, heading: "First")
    save("/slides/s1", rev: 1, heading: "Second")
    expect(last_response.status).to eq(422)
    expect(last_response.body).to include("Another window of yours changed the same")
    expect(lesson.slide("s1").heading).to eq("First")
  end

  it "takes of what a page says it has saved only what was written here" do
    save("/slides/s1", rev: 1, heading: "First")
    save("/slides/s1", rev: 1, heading: "Second", beside: %(#{"0" * 64}[[["heading"],{"a":1}],[["prompt"],7]]), mine: "1")
    expect([last_response.status, lesson.slide("s1").heading]).to eq([200, "Second"])
    save("/slides/s1", rev: 1, heading: "Third", beside: "x")
    expect(last_response.status).to eq(422)
  end

  it "gives, changes and takes off a question without losing the slide" do
    %w[sketch writing].push("").each_with_index { |kind, place| save("/slides/s1/prompt", rev: place + 1, kind: kind) }
    expect(lesson.slide("s1").prompt).to be_nil
    expect(lesson.slide("s1").heading).to eq("Dusk over the marsh")
    save("/slides/s1/prompt", rev: lesson.slide("s1").rev, kind: "choice")
    expect(last_response.body).to include("fewer than two options".capitalize)
  end

  it "keeps the time limit when the kind is changed" do
    save("/slides/s3/prompt", rev: 1, kind: "writing")
    expect([lesson.slide("s3").prompt.kind, lesson.slide("s3").prompt.time_limit]).to eq(["writing", 20])
  end

  it "takes in a picture, and refuses what only says it is one" do
    png = Rack::Test::UploadedFile.new(StringIO.new(Vips::Image.black(8, 6).write_to_buffer(".png")), "image/png",
                                       original_filename: "a.png")
    save("/slides/s1/pictures", rev: 1, pictures: [png])
    get Object.new.extend(Roost::Web::Pictures).media(lesson.slide("s1").picture.file)
    expect(last_response.headers["content-type"]).to start_with("image/")
    script = Rack::Test::UploadedFile.new(StringIO.new("#!/bin/sh\nrm -rf /"), "image/png", original_filename: "b.png")
    expect(save("/slides/s1/pictures", rev: 2, pictures: [script]).status).to eq(422)
    expect(save("/slides/s1/pictures", rev: 2).body).to include("Choose a file first.")
  end

  it "moves, removes and brings back slides" do
    save("/chosen", do: "down", slide: "s1")
    expect(lesson.slides.map(&:id).first(2)).to eq(%w[s2 s1])
    post_form "/lessons/#{id}/chosen", do: "remove", ids: %w[s3]
    expect(lesson.slides.length).to eq(4)
    post_form "/lessons/#{id}/undo"
    expect(lesson.slides.length).to eq(5)
  end

  it "deletes a lesson, and undo brings it back" do
    post_form "/lessons/#{id}/delete"
    follow_redirect!
    expect(last_response.body).to include("is deleted", "No lessons yet")
    post_form "/lessons/#{id}/restore"
    get "/lessons"
    expect(last_response.body).to include("Birds on the move")
  end

  it "refuses a lesson without title and keeps the list" do
    post_form "/lessons", title: "   "
    expect(last_response.status).to eq(422)
    expect(last_response.body).to include("A lesson needs a title.")
  end

  it "gives the results of a session as a sheet that runs no formulas" do
    session = Roost::Operations::StartSession.new.call(account, id,
                                                       { "title" => "Birds", "class_name" => "7K", "opens_itself" => "1" }).value
    seat = take_seat(session, "=Bo").first
    command(session, "begin")
    command(session, "jump", slide: "s4")
    Roost::Operations::SaveAnswer.new.call(seat, lesson, message("s4", { "text" => ["=1+1, \"so\""] }))
    command(session, "end")
    get "/results/#{session.id}/results.csv"
    rows = CSV.parse(last_response.body.delete_prefix("\uFEFF"), headers: true)
    expect(rows.length).to eq(1)
    expect(rows.first.to_h).to include("Student" => "'=Bo", "Question" => "How do they know the way?",
                                       "Answer" => "'=1+1, \"so\"", "Outcome" => "given", "Class" => "7K")
  end
end

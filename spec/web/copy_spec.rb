# frozen_string_literal: true

RSpec.describe "The page of a student's own copy" do
  let(:kinds) { Roost::Core::Kinds.all.map { |kind| kind.new(id: "p#{kind.kind}", settings: {}) } }
  let(:lesson) do
    slides = [slide("s0", text: "Look **closely**."), slide("q1", prompt: choice(keys: %w[o1], explanation: "They eat insects."))]
    Roost::Core::Lesson.new(title: "Birds", slides: slides + kinds.map { |prompt| slide("k#{prompt.kind}", prompt: prompt) })
  end

  it "says what was given and what was right, by the seat, the pass and a link of its own, and nothing while the lesson is on" do
    session = kept_session(teacher, lesson, own_copy: true)
    seat, token = take_seat(session)
    person = Roost::Store::Students.new.create(session.account_id, [{ name: "Cleo Okafor", shown_name: "Cleo" }]).first
    Roost::Store::Seats.new.belong(seat[:id], student_id: person, team_id: nil)
    Roost::Store::Students.new.give_pass(person, pass = Roost::Core::StudentPass.make(SecureRandom))
    command(session, "begin")
    lesson.prompts.each do |each|
      command(session, "jump", slide: each.id)
      Roost::Operations::VisitSeat.new.call(seat, Roost::Store::Sessions.new.find(session.id))
    end
    command(session, "jump", slide: "q1")
    command(session, "open")
    save(session, seat, "q1", picked("o2"))
    command(session, "close")
    put_back(session, 2, :closed_at, slide: "q1")
    command(session, "show", what: "key")
    link = "#{Roost.settings.base_url}#{Roost::Web::Copies.path(seat[:id])}"
    expect([get(URI(link).path).status, last_response.body]).to match([404, /No copy/])
    command(session, "end")
    pages = ["/seat/#{token}?copy", "/pass/#{pass}/copies/#{session.id}"].map { |path| get(path) && follow_redirect!.body }
    expect(Nokogiri::HTML5(pages.first).at_css("[data-copies]")["data-copies"]).to eq(link)
    expect(link).not_to include(token)
    expect(pages).to all(match(%r{Swallow.*✗ Not this time.*<dt>Right</dt><dd>Grey heron.*<dt>Why</dt>.*They eat insects}m))
    expect(pages.first).to include("By the key the answer earns 0 of 1.")
    expect(get("/pass/#{pass}").body).to include("/copies/#{session.id}")
    paper = get("#{URI(link).path}.pdf")
    expect([paper.status, paper.content_type, paper.body[0, 5]]).to eq([200, "application/pdf", "%PDF-"])
    Roost::Operations::AllowCopies.new.call(session.account_id, session.id, false)
    of_slide = Roost::Web::AnswerPictures.name("q1", "#{seat[:id]}-p0")
    paths = ["/pass/#{pass}/copies/#{session.id + 1}", URI(link).path, "#{URI(link).path}.pdf", "/copy/#{of_slide}",
             "/copy/x.pdf"]
    expect(paths.map { |path| get(path).status }).to eq([404] * 5)
  end
end

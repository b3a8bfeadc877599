# frozen_string_literal: true

RSpec.describe "Pictures from seats" do
  let(:account) { teacher }
  let(:photograph) { File.binread(File.join(Roost::Settings::ROOT, "docs/screenshots/seat-answering.png")) }
  let(:session) do
    prompt = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: {})
    kept_session(account,
                 Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: prompt), slide("s2", prompt: choice)]))
  end
  let(:token) { take_seat(session).last }

  def send_picture(bytes) = post("/seat/#{token}/pictures", bytes, "CONTENT_TYPE" => "application/octet-stream")

  def said = JSON.parse(last_response.body)

  it "are kept while a question that takes them is open, and not otherwise" do
    send_picture(photograph)
    expect([last_response.status, said]).to eq([422, { "message" => "Pictures can't be added now. Wait for your teacher." }])
    command(session, "begin")
    send_picture(photograph)
    expect(last_response.status).to eq(200)
    expect(said).to include("width" => 390)
    file = said["file"]
    expect(get("/media/#{file}").status).to eq(404)
    expect([token, take_seat(session, "Dan").last].map { |each| get("/seat/#{each}/pictures/#{file}").status }).to eq([200, 404])
    Roost::Store::Media.new.keep(File.binread(Roost::Store::Media.new.find(file).first), extension: "jpg", account_id: account)
    expect(get("/media/#{file}").status).to eq(200)
    command(session, "jump", slide: "s2")
    send_picture(photograph)
    expect(last_response.status).to eq(422)
  end

  it "are photographs and nothing else, and not too many" do
    command(session, "begin")
    ["", "hello", "<svg xmlns='http://www.w3.org/2000/svg'/>", photograph[0, 500], "\x00" * 5000].each do |bytes|
      send_picture(bytes)
      expect([last_response.status, said.keys]).to eq([422, ["message"]])
    end
    expect(database[:media].count).to eq(0)
    30.times { send_picture("x") }
    expect(said["message"]).to eq("That was a lot of pictures. Wait a few minutes, then continue.")
  end

  it "have an address that others are told only once the card is up, and that says nothing" do
    command(session, "begin")
    send_picture(photograph)
    writer = Roost::Store::Seats.new.by_token(token)
    card = { "id" => "p1", "text" => "", "emoji" => "", "picture" => said.merge("alt" => "") }
    expect(save(session, writer, "s1",
                { "posts" => [JSON.generate([card])], "likes" => ["[]"], "writing" => [""] }).state).to eq("final")
    reader = take_seat(session, "Dan").last
    told = -> { get("/seat/#{reader}").body[%r{/given/[\w-]+\?[^"]*}] }
    expect(told.call).to be_nil
    command(session, "curate", slide: "s1", what: "approve", cards: "#{writer[:id]}-p1")
    address = told.call
    expect(address).to match(%r{\A/given/[\w-]{22}\?v=\h{8}&amp;w=480\z})
    expect(get(CGI.unescapeHTML(address)).headers["content-type"]).to eq("image/webp")
    expect(get(address.sub(/&.*/, "")).headers["content-type"]).to eq("image/png").or eq("image/jpeg")
    database[:sessions].update(deleted_at: Sequel.lit("now()"))
    expect(get(address).status).to eq(404)
  end

  it "need a seat" do
    expect(post("/seat/nobody/pictures", photograph, "CONTENT_TYPE" => "application/octet-stream").status).to eq(404)
  end
end

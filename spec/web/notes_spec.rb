# frozen_string_literal: true

RSpec.describe "Notes of a seat, by its address" do
  let(:session) { kept_session(teacher).tap { |row| command(row, "begin") } }
  let(:token) { take_seat(session, "Bo").last }

  def note(save_no)
    { slide: "s1", fields: { text: ["Mine"] }, save_no: save_no, save_id: format("%08d-0000-0000-0000-000000000000", save_no) }
  end

  def send_note(body)
    post("/seat/#{token}/notes", body, { "CONTENT_TYPE" => "application/json" })
    [last_response.status, JSON.parse(last_response.body)["state"]]
  end

  it "are seen by their own seat alone, and bounded before they are read" do
    expect(send_note(JSON.generate(note(1)))).to eq([200, "draft"])
    expect([send_note("{"), send_note("[" * 30_000), send_note("\"#{"x" * 50_000}\"")]).to eq([[422, "refused"]] * 3)
    # What is too long is not read as far as it goes.
    expect(send_note(JSON.generate(note(2)) + (" " * 50_000))).to eq([422, "refused"])
    mine = { "text" => "Mine", "saved" => note(1)[:save_id], "attempt" => 1 }
    expect(JSON.parse(get("/seat/#{token}/notes").body)).to eq({ "s1" => mine })
    expect(JSON.parse(get("/seat/#{take_seat(session, "Cleo").last}/notes").body)).to eq({})
    unknown = [get("/seat/unknown/notes"), post("/seat/unknown/notes", "{}")]
    expect(unknown.map { |reply| [reply.status, JSON.parse(reply.body)["state"]] }).to eq([[404, "refused"]] * 2)
  end

  it "wait a little where they come too fast" do
    statuses = Array.new(20) { |at| send_note(JSON.generate(note(at + 1))).first }
    expect(statuses.tally.keys).to contain_exactly(200, 429)
  end
end

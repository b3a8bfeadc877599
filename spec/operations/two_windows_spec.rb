# frozen_string_literal: true

RSpec.describe "Two windows of one seat" do
  let(:session) { kept_session(teacher) }
  let(:seat) { take_seat(session).first }
  let(:one) { SecureRandom.uuid }
  let(:other) { SecureRandom.uuid }

  before do
    command(session, "begin")
    seat
    command(session, "jump", slide: "s4")
  end

  def write(text, **more) = save(session, seat, "s4", { "text" => [text] }, final: false, **more)

  def stored = moment(session).answer("s4", seat[:id])

  it "keep both texts when one did not know of the other's, and the first counts" do
    first = SecureRandom.uuid
    write("By the stars", writer: one, save_id: first)
    reply = write("By smell", writer: other, over: [], save_no: 9)
    expect([reply.state, reply.saved]).to eq(["elsewhere", first])
    expect([stored.value, stored.conflicting_version]).to eq([{ "text" => "By the stars" }, { "text" => ["By smell"] }])
    expect(Roost::Core::Session::Views.desk(moment(session)).entries.first.conflicting_version).to eq("By smell")
  end

  it "let the one that knows of the other's go on" do
    first = SecureRandom.uuid
    write("By the stars", writer: one, save_id: first)
    expect(write("By the stars and smell", writer: other, over: [first], save_no: 2).state).to eq("draft")
    expect(write("By the sun", writer: one, save_no: 3, over: [first]).state).to eq("elsewhere")
    expect([stored.value, stored.conflicting_version])
      .to eq([{ "text" => "By the stars and smell" }, { "text" => ["By the sun"] }])
  end

  it "let a window go on after itself, whatever reply was lost" do
    write("By", writer: one)
    expect(write("By the stars", writer: one, over: [], save_no: 2).state).to eq("draft")
  end

  it "are one as long as a window says nothing of itself" do
    write("By")
    expect(write("By the stars", writer: one, save_no: 2).state).to eq("draft")
  end

  it "are refused names that are none" do
    expect(write("By", writer: "me").state).to eq("refused")
    expect(write("By", writer: one, over: ["x"]).state).to eq("refused")
    expect(write("By", writer: one, over: [one] * 5).state).to eq("refused")
  end
end

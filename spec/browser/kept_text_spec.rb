# frozen_string_literal: true

# What a student typed is lost to nothing: neither to another device, nor to a refusal, nor to a teacher who takes a seat out.
RSpec.describe "Text that waits on a device" do
  let!(:account) { teacher }
  let(:session) { kept_session(account).tap { |row| %w[begin].each { |name| command(row, name) } } }
  let(:phone) { seat_window(:ada, session, as: "Ada", driver: :chromium_phone) }

  before { command(session, "jump", slide: "s4") }

  def type(words)
    phone.find_field("text").set(words)
    phone.assert_text("sending")
  end

  it "is handed over when another device has taken the seat, and the page says where it went on" do
    phone.assert_text("How do they know the way?")
    offline(phone, true)
    type("They follow the river")
    seat = database[:seats].first
    Roost::Operations::ComeBack.new.call(Roost::Store::Sessions.new.find(session.id), "Ada", seat[:number])
    offline(phone, false)
    eventually { database[:answers].get(:value)&.to_h == { "text" => "They follow the river" } }
    phone.visit(phone.current_path)
    phone.assert_text("You continued on another device")
    expect_accessible(phone)
  end

  it "stays on the device with the reason when it is refused for good, and goes to the teacher as it was typed" do
    phone.assert_text("How do they know the way?")
    offline(phone, true)
    type("Too late to count, but mine")
    command(session, "end")
    database[:sessions].update(ended_at: Sequel.lit("ended_at - interval '2 hours'"))
    offline(phone, false)
    phone.assert_text("Not accepted as an answer")
    phone.assert_text("Too late to count, but mine")
    expect(phone).to have_css(".refused-texts .quiet", text: Roost::Operations::SaveAnswer::NEVER_OPEN)
    phone.visit(phone.current_path)
    expect_accessible(phone)
    phone.click_button("Send to your teacher as typed")
    phone.assert_no_text("Not accepted as an answer")
    expect(database[:sent_texts].select_map(:text)).to eq(["Too late to count, but mine"])
  end

  it "can be copied and thrown away where the seat was taken out" do
    phone.assert_text("How do they know the way?")
    offline(phone, true)
    type("Mine all the same")
    Roost::Operations::RemoveSeat.new.call(account, session.id, database[:seats].get(:id))
    offline(phone, false)
    phone.visit(phone.current_path)
    phone.assert_text("You are no longer in this lesson")
    phone.assert_text("Mine all the same")
    phone.click_button("Copy")
    phone.click_button("Remove")
    phone.assert_no_text("Mine all the same")
  end
end

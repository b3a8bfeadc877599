# frozen_string_literal: true

# From an empty database to a class in a lesson, with a colleague, over HTTP; with a mail server and without.
RSpec.describe "A school's first hour" do
  let(:link) { Roost::Operations::FirstAccount.new.link[%r{/set-up\S+}] }
  let(:password) { "reeds and rushes" }

  # Somebody else's browser.
  def another
    clear_cookies
    @token = nil
  end

  def page_at(path)
    get path
    follow_redirect! while last_response.redirect?
    @token = token
    last_response.body
  end

  def set_up(**changed)
    page_at(link)
    press("='/set-up'", name: "Ms Falk", email: "falk@heronsgate.example", password: password, school: "Heronsgate School",
                        time_zone: "Europe/Dublin", **changed)
  end

  # A lesson is started with a class, whose student joins and answers.
  def teach
    lesson = kept_lesson(database[:accounts].get(:id))
    kestrel = Roost::Operations::KeepClass.new.create(database[:accounts].get(:id), { "name" => "Year 7 Kestrel" }).value
    Roost::Operations::FillClass.new.fill(database[:accounts].get(:id), kestrel,
                                          Roost::Core::ClassList.paste("Ada Lindqvist").value)
    page_at("/lessons/#{lesson}/start?class_id=#{kestrel}")
    press("$='/start'", class_id: kestrel.to_s, entry: "list")
    desk = last_response["location"]
    session = Roost::Store::Sessions.new.find(desk[/\d+\z/].to_i)
    post_form "#{desk}/commands", command: "begin"
    another
    page_at("/join/#{session.code}")
    press("^='/join'", student: database[:students].get(:id).to_s)
    expect(last_response["location"]).to match(%r{/seat/})
  end

  [true, false].each do |mails|
    it "leads from an empty database to a class with an invited colleague, #{mails ? "with" : "without"} a mail server" do
      allow(Roost.settings).to receive(:mails?).and_return(mails)
      expect(page_at("/sign-in")).to include("Nobody has an account yet. The link for the first one is printed where")
      set_up
      expect(page_at("/school")).to include("Heronsgate School", %(<option value="Europe/Dublin" selected>))
      press("='/school/invitations'", email: "")
      invited = last_response.body[%r{/invitation\?key=[\w-]+}]
      teach
      another
      page_at(invited)
      press("='/invitation'", name: "Mr Rowe", email: "rowe@heronsgate.example", password: password)
      if mails
        page_at(database[:outbox_mails].order(:id).last[:body][%r{/welcome\S+}])
        press("='/welcome'", password: password)
      end
      expect(page_at("/lessons")).to include("Mr Rowe")
      expect(get("/school").status).to eq(404)
      another
      expect(page_at(invited)).to include("That link isn&#39;t good any more. Ask the teacher who gave it to you for another.")
    end
  end

  it "has one who is first, whoever else has the address of the page" do
    expect(page_at("/sign-up")).to include("Nobody has an account yet")
    page_at("/sign-in")
    post_form "/sign-up", name: "Imp", email: "imp@far.example"
    expect(database[:outbox_mails].get(:body)).to start_with("Accounts here are made by invitation.")
    another
    expect(page_at("/set-up?key=guessed")).to include("Nobody has an account yet")
    set_up
    expect(database[:accounts].select_map(%i[email keeper])).to eq([["falk@heronsgate.example", true]])
    another
    page_at(link.sub(/key=.+/, "key=x"))
    expect(last_response.body).to include("Sign in")
  end

  it "says what is wrong in the form, and keeps what was typed" do
    { { name: "" } => "Your name is needed", { email: "falk" } => "That isn't a whole email address.",
      { password: "reeds" } => "The password needs at least 10 characters.",
      { time_zone: "London" } => "Choose a time zone from the list." }.each do |changed, sentence|
      set_up(**changed)
      expect(last_response.status).to eq(422)
      page = Nokogiri::HTML(last_response.body)
      expect(page.at_css("[role=alert]").text).to include(sentence)
      expect(page.at_css("#school")["value"]).to eq("Heronsgate School")
    end
  end

  it "lets nobody with a link for whoever has it take an account that is there, also where that is made meanwhile" do
    allow(Roost.settings).to receive(:mails?).and_return(false)
    keeper = teacher
    key = Roost::Operations::KeepSchool.new.invite(keeper, "").value[/key=(.+)/, 1]
    accepting = Roost::Operations::AcceptInvitation.new
    about = accepting.about(key)
    taken = accepting.read(about, { "name" => "Imp", "email" => "FALK@heronsgate.example" })
    expect(taken.reason).to start_with("That address has an account.")
    read = accepting.read(about, { "name" => "Imp", "email" => "rowe@heronsgate.example" })
    teacher(email: "rowe@heronsgate.example", name: "Mr Rowe")
    expect { expect(accepting.call(key, read.value, "x")).to be_nil }
      .not_to(change { database[:accounts].where(email: "rowe@heronsgate.example").get(:password_hash) })
  end

  it "lets nobody in by a link who is stopped, nor gives one to them" do
    keeper = teacher
    rowe = teacher(email: "rowe@heronsgate.example", name: "Mr Rowe")
    keeping = Roost::Operations::KeepSchool.new
    given = keeping.invite(keeper, "Rowe@heronsgate.example").value[%r{/invitation\S+}]
    keeping.stop(keeper, rowe)
    expect(page_at(given)).to include("That link isn&#39;t good any more.")
    expect(keeping.invite(keeper, "ROWE@heronsgate.example").reason)
      .to eq("The teacher with that address is stopped. Let them in again first.")
    keeping.stop(keeper, rowe, stopped: false)
    expect(page_at(given)).to include("Choose a new password")
  end

  it "sends no class to an address that is this computer's own, and says what to do" do
    session = kept_session(teacher)
    sign_in
    desk = -> { Nokogiri::HTML(get("/desk/#{session.id}").body).at_css(".desk-lobby") }
    screen = -> { Nokogiri::HTML(get("/screen/#{session.screen_key}").body).at_css(".screen-lobby") }
    alone = [desk.call, screen.call]
    expect(alone.map { |page| page.css("img").length }).to eq([0, 0])
    expect(alone[0].text).to include("Phones can't join yet.", "ROOST_HOST=0.0.0.0")
    expect(alone[1].at_css("h1").text).to include("On this computer only:")
    allow(Roost.settings).to receive(:base_url).and_return("http://192.168.1.20:4567")
    expect([desk.call, screen.call].map { |page| page.css("img").length }).to eq([1, 1])
    expect(desk.call.text).not_to include("Phones can't join yet.")
    expect(screen.call.at_css("h1").text.split.join(" ")).to eq("Join at 192.168.1.20:4567")
  end

  it "lets the keeper give a colleague a new password by a link, which ends the colleague's sign-ins" do
    keeper = teacher
    teacher(email: "rowe@heronsgate.example", name: "Mr Rowe")
    sign_in("rowe@heronsgate.example")
    theirs = rack_mock_session.cookie_jar.get_cookie("roost").raw
    another
    given = Roost::Operations::KeepSchool.new.invite(keeper, "rowe@heronsgate.example").value[%r{/invitation\S+}]
    expect(page_at(given)).to include("Choose a new password", "Mr Rowe")
    press("='/invitation'", password: "a better password")
    expect(page_at("/lessons")).to include("Mr Rowe")
    told = database[:outbox_mails].order(:id).last
    expect([told[:recipient], told[:subject]]).to eq(["rowe@heronsgate.example", "Amber Roost: your password was changed"])
    another
    set_cookie(theirs)
    expect(get("/lessons")).to be_redirect
    another
    sign_in("rowe@heronsgate.example", "a better password")
    expect(last_response).to be_ok
  end
end

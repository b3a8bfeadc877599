# frozen_string_literal: true

RSpec.describe "Teachers' accounts" do
  def outbox(host: "127.0.0.1") = get("/outbox", {}, "HTTP_HOST" => host)

  def mailed(pattern)
    outbox
    last_response.body[pattern, 1]
  end

  # Opens the link of a mail and presses the button there.
  def open_link(link, path, **fields)
    get link
    follow_redirect! while last_response.redirect?
    @token = token
    post_form path, **fields, key: last_response.body[/name="key" value="([^"]+)"/, 1].to_s
  end

  def in?
    get "/lessons"
    last_response.ok?
  end

  # A school whose teachers sign up with an address of its own.
  def open_to_domain
    teacher(email: "keeper@heronsgate.example")
    database[:school].update(joining: "domains", domains: Sequel.pg_array(["heronsgate.example"], :text))
  end

  def rowe = database[:accounts].where(email: "rowe@heronsgate.example")

  it "signs up by a mail, out and in again" do
    open_to_domain
    get "/sign-up"
    post_form "/sign-up", name: "Mr Rowe", email: "rowe@heronsgate.example"
    expect(last_response.headers["location"]).to eq("/sign-in")
    expect(rowe.count).to eq(0)
    link = mailed(%r{href="[^"]*(/welcome\?key=[^"]+)"})
    open_link(link, "/welcome", password: "reeds and rushes")
    expect(last_response.headers["location"]).to eq("/today")
    expect(rowe.get(:password_hash)).to start_with("$argon2id$")
    get "/lessons"
    expect(last_response.body).to include("Mr Rowe")
    @token = token
    post_form "/sign-out"
    expect(in?).to be(false)
    sign_in("rowe@heronsgate.example", "reeds and rushes")
    expect(last_response).to be_ok
    clear_cookies
    open_link(link, "/welcome", password: "reeds and rushes")
    expect(rowe.count).to eq(1)
    expect(in?).to be(false)
  end

  describe "when there is a keeper" do
    before do
      teacher
      sign_in
      get "/school"
      @token = token
    end

    it "comes by an invitation, which the keeper sends, and not without" do
      press("='/school'", name: "Heronsgate School")
      follow_redirect!
      expect(Roost::Store::School.new.settings.to_h).to include(name: "Heronsgate School")
      press("='/school/invitations'", email: "rowe@heronsgate.example")
      link = last_response.body[%r{(/invitation\?key=[\w-]+)}, 1]
      clear_cookies
      get "/sign-up"
      expect(last_response.body).to include("Accounts here are made by invitation")
      @token = token
      post_form "/sign-up", name: "Imp", email: "imp@heronsgate.example"
      expect(database[:outbox_mails].order(:id).last[:body]).to start_with("Accounts here are made by invitation.")
      open_link(link, "/invitation", name: "Mr Rowe", email: "imp@far.example", password: "reeds and rushes")
      expect(in?).to be(true)
      expect(get("/school").status).to eq(404)
      expect(database[:accounts].select_order_map(:email)).to eq(%w[falk@heronsgate.example rowe@heronsgate.example])
    end

    it "is shut out when the keeper stops it, at once and in the words of a wrong password, and let in again" do
      rowe = teacher(email: "rowe@heronsgate.example", name: "Mr Rowe")
      keeper = rack_mock_session.cookie_jar.get_cookie("roost").raw
      clear_cookies
      sign_in("rowe@heronsgate.example")
      expect(in?).to be(true)
      theirs = rack_mock_session.cookie_jar.get_cookie("roost").raw
      press = lambda do |stopped|
        clear_cookies
        set_cookie(keeper)
        get "/school"
        @token = token
        post_form "/school/teachers/#{rowe}/stop", stopped: stopped
        expect(last_response.status).to eq(303)
        clear_cookies
      end
      press.call("1")
      set_cookie(theirs)
      expect(in?).to be(false)
      clear_cookies
      get "/sign-in"
      @token = token
      post_form "/sign-in", email: "rowe@heronsgate.example", password: "sallow marsh at dusk"
      expect([last_response.status, last_response.body]).to match([401, /Check the email and the password./])
      press.call("0")
      sign_in("rowe@heronsgate.example")
      expect(in?).to be(true)
    end

    it "has the school when the keeper hands it over, who then has it no more" do
      rowe = teacher(email: "rowe@heronsgate.example", name: "Mr Rowe")
      get "/school"
      @token = token
      post_form "/school/teachers/#{rowe}/keeper"
      expect(last_response.status).to eq(303)
      expect(get("/school").status).to eq(404)
      clear_cookies
      sign_in("rowe@heronsgate.example")
      expect(get("/school").status).to eq(200)
    end
  end

  it "is nobody's who only typed the address: the password is chosen by whoever opens the mail" do
    open_to_domain
    get "/sign-up"
    post_form "/sign-up", name: "Imp", email: "rowe@heronsgate.example", password: "the attacker's own"
    link = mailed(%r{href="[^"]*(/welcome\?key=[^"]+)"})
    { "" => "Password is needed", "reeds" => "Password needs at least 10 characters" }.each do |short, sentence|
      open_link(link, "/welcome", password: short)
      expect([last_response.status, CGI.unescapeHTML(last_response.body)]).to match([422, /#{sentence}/])
    end
    open_link(link, "/welcome", password: "reeds and rushes")
    expect(in?).to be(true)
    clear_cookies
    sign_in("rowe@heronsgate.example", "the attacker's own")
    expect(in?).to be(false)
  end

  it "says in one sentence what is wrong with a new account" do
    open_to_domain
    get "/sign-up"
    { { name: "", email: "rowe@heronsgate.example" } => "Your name is needed",
      { name: "Mr Rowe", email: "rowe" } => "Email isn&#39;t a whole email address" }
      .each { |fields, sentence| expect(post_form("/sign-up", **fields).body).to include(sentence) }
    expect(database[:accounts].count).to eq(1)
  end

  it "resets a password by a mail in the outbox" do
    teacher
    get "/forgotten"
    post_form "/forgotten", email: "falk@heronsgate.example"
    outbox
    link = last_response.body[%r{href="[^"]*(/new-password\?key=[^"]+)"}, 1]
    get link
    follow_redirect! if last_response.redirect?
    @token = token
    post_form "/new-password", password: "a better password"
    sign_in("falk@heronsgate.example", "a better password")
    expect(last_response.body).to include("Ms Falk")
  end

  it "says the same, in words, status and headers, whether or not there is such an account" do
    teacher
    ask = lambda do |path, fields|
      clear_cookies
      get path
      @token = token
      post_form path, **fields
      follow_redirect! if last_response.redirect?
      [last_response.status, last_response.headers.except("set-cookie", "content-length"),
       last_response.body.gsub(/(?:falk|nobody)@/, "").gsub(/value="[^"]{40,}"/, "")]
    end
    { "/sign-in" => [{ password: "not the right one" }, "Check the email and the password."],
      "/forgotten" => [{}, "a mail with a link is on its way"],
      "/sign-up" => [{ name: "Falk" }, "a mail with a link is on its way"] }
      .each do |path, (fields, sentence)|
        known, unknown = %w[falk nobody].map { |name| ask.call(path, { email: "#{name}@heronsgate.example", **fields }) }
        expect(known).to eq(unknown)
        expect(known.last).to include(sentence)
      end
    expect(database[:outbox_mails].select_order_map(:subject).tally).to eq({ "Amber Roost: a new password" => 1,
                                                                             "Amber Roost: your account" => 2 })
    expect(database[:accounts].count).to eq(1)
  end

  it "does as much work for a name nobody has as for a wrong password" do
    teacher
    expect(Argon2::Password).to receive(:verify_password).with("wrong", described_class_decoy).and_call_original
    get "/sign-in"
    @token = token
    post_form "/sign-in", email: "nobody@heronsgate.example", password: "wrong"
  end

  def described_class_decoy = Roost::Web::Authentication::DECOY

  describe "wrong passwords" do
    def try(password, email: "falk@heronsgate.example", from: "10.0.0.1", device: nil)
      @token = nil
      clear_cookies
      set_cookie(device) if device
      get "/sign-in", {}, "REMOTE_ADDR" => from
      post "/sign-in", { "email" => email, "password" => password, "authenticity_token" => token }, "REMOTE_ADDR" => from
      last_response.status
    end

    before do
      teacher
      # Of fifty wrong names not each needs the time that one takes.
      cheap = Argon2::Password.new(t_cost: 1, m_cost: 3, p_cost: 1).create("nobody's")
      stub_const("Roost::Web::Authentication::DECOY", cheap)
    end

    it "make further tries wait, for that account from that address, and nobody else" do
      expect(Array.new(7) { try("guess") }).to eq([401, 401, 401, 401, 401, 429, 429])
      expect(try("sallow marsh at dusk")).to eq(429)
      expect(try("sallow marsh at dusk", from: "10.0.0.2")).to eq(302)
      teacher(email: "rowe@heronsgate.example")
      expect(try("sallow marsh at dusk", email: "rowe@heronsgate.example")).to eq(302)
    end

    # @return [String] the cookie of a device from which she has signed in
    def known_device
      expect(try("sallow marsh at dusk")).to eq(302)
      Array(last_response["set-cookie"]).join("\n")[/roost-signed-in=[^;\n]+/]
    end

    it "from others at the same address never shut out a device that she has signed in from" do
      device = known_device
      40.times { |number| try("guess", email: "x#{number}@heronsgate.example") }
      expect(Array.new(2) { try("guess", email: "x99@heronsgate.example") }).to eq([401, 429])
      10.times { try("guess") }
      expect([try("sallow marsh at dusk"), try("sallow marsh at dusk", device: device)]).to eq([429, 302])
    end

    it "make others wait at an address where she has signed in, and that device too, where they are tried there" do
      device = known_device
      expect(Array.new(6) { try("guess") }).to eq([401, 401, 401, 401, 401, 429])
      expect(Array.new(6) { try("guess", device: device) }).to eq([401, 401, 401, 401, 401, 429])
      made_up = device.sub(/=.*/, "=#{"a" * 22}.#{"0" * 32}")
      expect(try("guess", device: made_up)).to eq(429)
    end

    it "leave the mail with a link, so that nobody is shut out for good by what others try" do
      7.times { try("guess") }
      expect(try("sallow marsh at dusk")).to eq(429)
      expect(last_response.body).to include("/forgotten")
      get "/forgotten", {}, "REMOTE_ADDR" => "10.0.0.1"
      post "/forgotten", { "email" => "falk@heronsgate.example", "authenticity_token" => token }, "REMOTE_ADDR" => "10.0.0.1"
      expect([last_response.status, database[:outbox_mails].select_map(:recipient)]).to eq([302, ["falk@heronsgate.example"]])
    end

    it "for many accounts never shut out a colleague who signs in there for the first time" do
      40.times { |number| try("guess", email: "x#{number}@heronsgate.example") }
      teacher(email: "rowe@heronsgate.example")
      expect(try("sallow marsh at dusk", email: "rowe@heronsgate.example")).to eq(302)
    end

    it "are hashed two at a time, a few wait, and more are told to come again" do
      gate = Thread::Queue.new
      busy = Array.new(14) { Thread.new { Roost::Web::Hashing.turn { gate.pop } } }
      sleep 0.05 until busy.all? { |thread| thread.status == "sleep" }
      expect([try("sallow marsh at dusk"), last_response.body]).to match([429, /Wait a minute/])
      14.times { gate << true }
      busy.each(&:join)
      expect(try("sallow marsh at dusk")).to eq(302)
    end
  end

  describe "sign-ins" do
    before do
      teacher
      sign_in
    end

    let(:saved) { rack_mock_session.cookie_jar.get_cookie("roost").raw }

    def with_saved_cookie
      clear_cookies
      set_cookie(saved.split(";").first)
    end

    # Puts the times of the one there is back by so many seconds.
    def aged(**columns)
      database[:account_active_session_keys].update(columns.transform_values do |seconds|
        Sequel.lit("now() - make_interval(secs => ?)", seconds)
      end)
    end

    def last_use = database[:account_active_session_keys].get(:last_use)

    it "are noted to be used once a minute, not at each request" do
      aged(last_use: 50)
      expect { expect(in?).to be(true) }.not_to(change { last_use })
      aged(last_use: 70)
      expect { expect(in?).to be(true) }.to(change { last_use })
    end

    it "end by themselves: a fortnight after they were used last, and after a quarter of a year though they were used just now" do
      aged(last_use: 15 * 86_400)
      expect(in?).to be(false)
      sign_in
      aged(created_at: 91 * 86_400, last_use: 1)
      expect(in?).to be(false)
    end

    it "that have ended: the page to sign in says so, and leads back to the page that was asked for" do
      database[:account_active_session_keys].delete
      get "/classes"
      follow_redirect!
      expect(last_response.body).to include("You were signed out. Sign in to continue.")
      @token = token
      post_form "/sign-in", email: "falk@heronsgate.example", password: "sallow marsh at dusk"
      expect(last_response["location"]).to eq("/classes")
      clear_cookies
      get "/classes"
      follow_redirect!
      expect(last_response.body).to include("Sign in to continue.")
      expect(last_response.body).not_to include("You were signed out")
      @token = token
      post_form "/sign-in", email: "falk@heronsgate.example", password: "sallow marsh at dusk"
      expect(last_response["location"]).to eq("/classes")
    end

    it "that have ended: a page that asks for a part of itself gets a sentence, not the page to sign in" do
      database[:account_active_session_keys].delete
      part = -> { get("/classes", {}, "HTTP_HX_REQUEST" => "true") }
      ended = Array.new(2) { part.call.then { |response| [response.status, response.body] } }
      expect(ended).to all(match([401, include("refusal", "You are signed out.")]))
      get "/classes", {}, "HTTP_SEC_FETCH_MODE" => "cors"
      expect(last_response.status).to eq(401)
      get "/stream/desk/1", {}, "HTTP_SEC_FETCH_MODE" => "cors"
      expect(last_response.status).to eq(404)
    end

    it "that are new go on with a page of the one before: it gets the token that is good now" do
      before = token
      post_form "/sign-out"
      sign_in
      post "/sign-out", { "authenticity_token" => before }
      expect(last_response.status).to eq(403)
      post "/sign-out", {}, "HTTP_X_CSRF_TOKEN" => last_response["x-csrf-token"]
      expect(last_response["location"]).to end_with("/sign-in")
    end

    it "end with signing out: a cookie that was saved before is good for nothing" do
      saved
      post_form "/sign-out"
      with_saved_cookie
      expect(in?).to be(false)
      get "/stream/desk/1"
      expect(last_response.status).not_to eq(200)
    end

    it "end with a new password, by mail and here, and are listed until then" do
      saved
      clear_cookies
      get "/forgotten"
      @token = token
      post_form "/forgotten", email: "falk@heronsgate.example"
      open_link(mailed(%r{href="[^"]*(/new-password\?key=[^"]+)"}), "/new-password", password: "a better password")
      with_saved_cookie
      expect(in?).to be(false)
      sign_in("falk@heronsgate.example", "a better password")
      get "/account"
      expect(last_response.body).to include("this one")
      expect(last_response.body).not_to include("Sign out there")
      @token = token
      other = database[:account_active_session_keys].insert(account_id: database[:accounts].get(:id), session_id: "x",
                                                            device: "Mobi")
      expect(other).not_to be_nil
      get "/account"
      expect(last_response.body).to include("A phone or tablet", "Sign out everywhere else")
      post_form "/account/sign-ins/end", sign_in: "x"
      expect(database[:account_active_session_keys].where(session_id: "x").count).to eq(0)
      database[:account_active_session_keys].insert(account_id: database[:accounts].get(:id), session_id: "y")
      get "/change-password"
      @token = token
      post_form "/change-password", password: "a better password", "new-password": "the best password"
      expect(database[:account_active_session_keys].select_map(:session_id)).to all(satisfy { |id| id != "y" })
      expect(in?).to be(true)
    end
  end

  it "shows the outbox to this machine only" do
    ours = { "HTTP_HOST" => "127.0.0.1" }
    expect(outbox.status).to eq(200)
    expect(get("/outbox", {}, **ours, "REMOTE_ADDR" => "192.168.1.20").status).to eq(404)
    %w[FORWARDED X_FORWARDED_FOR X_FORWARDED_HOST X_REAL_IP].each do |name|
      expect([name, get("/outbox", {}, **ours, "HTTP_#{name}" => "for=127.0.0.1").status]).to eq([name, 404])
    end
    expect(%w[elsewhere.example 10.0.0.1:4567].map { |host| outbox(host: host).status }).to eq([404, 404])
  end
end

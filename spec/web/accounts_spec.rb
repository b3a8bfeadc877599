# frozen_string_literal: true

RSpec.describe "Teachers' accounts" do
  it "signs up, out and in again" do
    get "/sign-up"
    post_form "/sign-up", name: "Mr Rowe", email: "rowe@heronsgate.example", password: "reeds and rushes"
    expect(last_response.headers["location"]).to eq("/lessons")
    expect(database[:accounts].get(:password_hash)).to start_with("$argon2id$")
    get "/lessons"
    expect(last_response.body).to include("Mr Rowe")
    @token = token
    post_form "/sign-out"
    get "/lessons"
    expect(last_response.headers["location"]).to end_with("/sign-in")
    sign_in("rowe@heronsgate.example", "reeds and rushes")
    expect(last_response).to be_ok
  end

  it "says in one sentence what is wrong with a new account" do
    get "/sign-up"
    { { name: "", email: "rowe@heronsgate.example", password: "reeds and rushes" } => "Your name is needed",
      { name: "Mr Rowe", email: "rowe", password: "reeds and rushes" } => "Email isn&#39;t a whole email address",
      { name: "Mr Rowe", email: "rowe@heronsgate.example", password: "reeds" } => "Password needs at least 10 characters" }
      .each { |fields, sentence| expect(post_form("/sign-up", **fields).body).to include(sentence) }
    expect(database[:accounts].count).to eq(0)
  end

  it "resets a password by a mail in the outbox" do
    teacher
    get "/forgotten"
    post_form "/forgotten", email: "falk@heronsgate.example"
    get "/outbox"
    link = last_response.body[%r{href="[^"]*(/new-password\?key=[^"]+)"}, 1]
    get link
    follow_redirect! if last_response.redirect?
    @token = token
    post_form "/new-password", password: "a better password"
    sign_in("falk@heronsgate.example", "a better password")
    expect(last_response.body).to include("Ms Falk")
  end

  it "locks an account after too many wrong passwords, and opens it by mail" do
    teacher
    get "/sign-in"
    11.times { post_form "/sign-in", email: "falk@heronsgate.example", password: "wrong" }
    sign_in
    expect(last_response.headers["location"]).to end_with("/sign-in")
    get "/sign-in"
    @token = token
    post_form "/unlock-request", email: "falk@heronsgate.example"
    get "/outbox"
    get last_response.body[%r{href="[^"]*(/unlock\?key=[^"]+)"}, 1]
    follow_redirect! if last_response.redirect?
    @token = token
    post_form "/unlock"
    sign_in
    expect(last_response).to be_ok
  end

  it "holds back guessing from one address" do
    teacher
    get "/sign-in"
    statuses = Array.new(40) do |number|
      post_form("/sign-in", email: "x#{number}@heronsgate.example", password: "guess").status
    end
    expect(statuses.last).to eq(429)
  end

  it "shows the outbox to this machine only" do
    get "/outbox", {}, "REMOTE_ADDR" => "192.168.1.20", "HTTP_X_FORWARDED_FOR" => "127.0.0.1"
    expect(last_response.status).to eq(404)
  end
end

# frozen_string_literal: true

require "logger"

# What a class does all at once asks the database little: each statement costs as much as the work around it.
RSpec.describe "Statements for the database" do
  let!(:session) { kept_session(teacher).tap { |session| command(session, "begin") } }

  # @return [Array<String>] that are asked for while the block runs
  def statements
    said = []
    listening = Logger.new(File::NULL)
    listening.define_singleton_method(:info) { |text| said << text.sub(/\A\(\S+ /, "") }
    database.loggers << listening
    yield
    said.reject { |text| text.start_with?("PREPARE") }
  ensure
    database.loggers.delete(listening)
  end

  def join(name) = post("/join/#{session.code}", "name" => name)

  # The first time a process does something, it asks for what it then knows.
  before do
    join("Ada")
    get last_response.headers["location"]
  end

  it "are five for a student who comes, and six for the page" do
    get "/join/#{session.code}"
    expect(statements { join("Bo") }.length).to eq(5)
    expect(statements { get(last_response.headers["location"]) }.length).to eq(6)
    expect(last_response.body).to include("Bo")
  end

  it "are three more where somebody has the name" do
    expect(statements { join("ADA") }.length).to eq(8)
    get last_response.headers["location"]
    expect(last_response.body).to include("ADA 2")
  end

  it "are seven for a command, its transaction among them" do
    sign_in("falk@heronsgate.example")
    press = lambda do
      statements { post "/desk/#{session.id}/commands", { command: "next" }, "HTTP_X_CSRF_TOKEN" => @token }
    end
    press.call
    expect(press.call.length).to be <= 7
    expect(Roost::Store::Sessions.new.find(session.id).state.slide_id).to eq("round")
  end

  it "is one that says whose a stream is" do
    join("Bo")
    token = last_response.headers["location"].split("/").last
    expect(statements { get("/stream/seat/#{token}") }.length).to eq(1)
  end
end

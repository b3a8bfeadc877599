# frozen_string_literal: true

require "rack/mock"
require "socket"
require "timeout"
require "tmpdir"

# Whatever looks back is answered by a process of its own.
RSpec.describe Roost::Web::LookingBack do
  around do |example|
    Dir.mktmpdir { |folder| Timeout.timeout(30) { (@folder = folder) && example.run } }
  end

  let(:socket) { File.join(@folder, "lookback.sock") }
  let(:here) { ->(_env) { [200, { "content-type" => "text/plain" }, ["here"]] } }
  let(:web) { described_class.new(here, socket: socket) }
  let(:heard) { Queue.new }

  # Answers each request with this, having noted it.
  def answering(with)
    server = UNIXServer.new(socket)
    thread = Thread.new { loop { Thread.new(server.accept) { |line| answer(line, with) } } }
    yield
  ensure
    thread&.kill
    server&.close
  end

  def answer(line, with)
    head = line.gets("\r\n\r\n")
    heard << [head, line.read(head[/content-length: (\d+)/, 1].to_i)]
    with.respond_to?(:call) ? with.call(line) : line.write(with)
    line.close
  end

  def get(path, **about) = Rack::MockRequest.new(web).request("GET", path, **about)

  it "gets the request as it came and is heard as it answers, with each of its cookies" do
    said = "HTTP/1.1 200 OK\r\ncontent-type: text/csv\r\nset-cookie: a=1\r\nset-cookie: b=2\r\ncontent-length: 5\r\n\r\nName\n"
    answering(said) do
      sent = Rack::MockRequest.new(web).post("/results/7/marks?look=all", input: "points=2", "HTTP_COOKIE" => "roost=x",
                                                                          "CONTENT_TYPE" => "application/x-www-form-urlencoded")
      expect([sent.status, sent.body, sent.headers["content-type"]]).to eq([200, "Name\n", "text/csv"])
      expect(sent.headers["set-cookie"]).to eq(%w[a=1 b=2])
      head, body = heard.pop
      expect(head).to start_with("POST /results/7/marks?look=all HTTP/1.1\r\n").and include("cookie: roost=x\r\n")
      expect(head).to include("content-type: application/x-www-form-urlencoded\r\n")
      expect(body).to eq("points=2")
    end
  end

  it "gets a form that what stands in front of it has read" do
    answering("HTTP/1.1 200 OK\r\ncontent-length: 2\r\n\r\nok") do
      guarded = Roost::Web::RequestFilter.new(web, proxies: 0, secure: false, raw: /\A\z/)
      sent = Rack::MockRequest.new(guarded).post("/results/7/release", params: { "released" => "1", "why" => "Größe" })
      expect(sent.body).to eq("ok")
      expect(URI.decode_www_form(heard.pop.last)).to eq([%w[released 1], %w[why Größe]])
    end
  end

  it "is asked for results, assignments, what to bring back and exports; all else is answered at once" do
    answering("HTTP/1.1 204 No Content\r\n\r\n") do
      paths = %w[/results /results/1/print /assignments/3 /classes/2/bring-back /classes/2/roster.zip /lessons/4/questions.csv]
      expect(paths.map { |path| get(path).status }).to all(eq(204))
      others = %w[/today /desk/1 /lessons/4 /classes/2 /seat/abc /join /resultsx]
      expect(others.map { |path| get(path).body }).to all(eq("here"))
    end
  end

  it "says what to do where that process has not begun or has just ended, and keeps no place for who asked" do
    (described_class::MOST + 1).times { expect(get("/results").body).to include("Nothing is lost") }
    UNIXServer.new(socket).close
    away = get("/results")
    expect([away.status, away.headers["retry-after"]]).to eq([503, "3"])
    expect(away.body).to include("Nothing is lost; try again in a few seconds.")
  end

  it "is asked by twelve at a time; more are told to come again, and whoever ended makes room" do
    go = Queue.new
    slow = lambda do |line|
      go.pop
      line.write("HTTP/1.1 200 OK\r\ncontent-length: 2\r\n\r\nok")
    end
    answering(slow) do
      waiting = Array.new(described_class::MOST) { Thread.new { get("/results").body } }
      described_class::MOST.times { heard.pop }
      expect(get("/results").status).to eq(503)
      described_class::MOST.times { go << true }
      expect(waiting.map(&:value)).to all(eq("ok"))
      go << true
      expect(get("/results").body).to eq("ok")
    end
  end
end

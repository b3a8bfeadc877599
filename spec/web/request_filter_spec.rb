# frozen_string_literal: true

RSpec.describe Roost::Web::RequestFilter do
  let(:seen) { [] }

  def gate(proxies: 0, secure: false)
    described_class.new(->(env) { seen << env and [200, {}, []] }, proxies: proxies, secure: secure, raw: %r{\A/bare/})
  end

  def status(path = "/", gate: self.gate, **env)
    env = { "REMOTE_ADDR" => "10.0.0.1" }.merge(env.transform_keys(&:to_s))
    path, query = path.split("?", 2)
    request = Rack::MockRequest.env_for("/", **env.slice("method", "input").transform_keys(&:to_sym))
    gate.call(request.merge("PATH_INFO" => path, "QUERY_STRING" => query.to_s, **env.except("method", "input"))).first
  end

  it "lets through what is well-formed, and refuses what is not, with one sentence" do
    expect(["/", "/a%20b?q=%C3%A9", "/?ids[]=1&ids[]=2", "/?prompt[keys][m1]=m2"].map { |path| status(path) }).to all(eq(200))
    ["/%00", "/%FF", "/?q=%00", "/?q=%FF", "/?q=%", "/?q[]=1", "/?q[a]=1", "/?prompt[a][b][c][d][e][f][g]=1", "/#{"a" * 2_100}",
     "/?q=#{"a" * 9_000}", "/?a=1&a[b]=2", "/?#{Array.new(1_200) { |n| "a#{n}=" }.join("&")}&b[]=1"].each do |path|
      expect([path[0, 30], status(path)]).to eq([path[0, 30], 400])
    end
  end

  it "knows every list that a page of ours sends" do
    pages = Dir[File.join(Roost::Settings::ROOT, "lib/roost/web/**/*.erb")].map { |path| File.read(path) }
    lists = pages.flat_map { |text| text.scan(/name="(\w+)\[\]"/) }.flatten.uniq
    expect(lists.length).to be > 5
    expect(lists - described_class::STRUCTURED).to eq([])
  end

  it "looks at forms, plain and with files, and leaves other bodies alone" do
    form = "application/x-www-form-urlencoded"
    expect(status(method: "POST", input: "title=A%00", CONTENT_TYPE: form)).to eq(400)
    expect(status("/bare/1", method: "POST", input: "{%00", CONTENT_TYPE: form)).to eq(200)
    expect(status(method: "POST", input: "--x\r\nbroken", CONTENT_TYPE: "multipart/form-data; boundary=x")).to eq(400)
  end

  it "believes no header about who asks, unless there are proxies, and then just so many from the right" do
    said = { HTTP_X_FORWARDED_FOR: "1.1.1.1, 2.2.2.2, 3.3.3.3", HTTP_FORWARDED: "for=9.9.9.9", HTTP_X_REAL_IP: "8.8.8.8" }
    { 0 => "10.0.0.1", 1 => "3.3.3.3", 2 => "2.2.2.2", 4 => "10.0.0.1" }.each do |proxies, address|
      status(gate: gate(proxies: proxies), **said)
      expect([proxies, seen.last["REMOTE_ADDR"]]).to eq([proxies, address])
      expect(seen.last.keys.grep(/FORWARDED\z|FORWARDED_|REAL_IP/)).to eq([])
      expect(seen.last["roost.forwarded"]).to be(true)
    end
  end

  it "takes a request for https where a proxy takes that off" do
    status(gate: gate(proxies: 1, secure: true), HTTP_X_FORWARDED_FOR: "1.1.1.1")
    expect(Rack::Request.new(seen.last)).to be_ssl
    status(gate: gate, HTTP_X_FORWARDED_PROTO: "https")
    expect(Rack::Request.new(seen.last)).not_to be_ssl
  end
end

RSpec.describe Roost::Web::ErrorBoundary do
  it "answers whatever happens with one sentence, and writes nothing of the request into the log" do
    app = described_class.new(->(_env) { raise "secret text of /seat/TOKEN" })
    answer = nil
    expect { answer = app.call({}) }.to output(/\A#{Time.now.year}\S+Z error: RuntimeError at .*\n\z/).to_stderr
    expect([answer[0], answer[2].join]).to match([500, include("what you had saved is still there")])
    expect { app.call({}) }.not_to output(/secret|TOKEN/).to_stderr
    away = described_class.new(->(_env) { raise Sequel::PoolTimeout })
    expect(away.call({})[0]).to eq(503)
  end
end

# frozen_string_literal: true

require "tmpdir"
require_relative "../../standins/coursepage/site"

RSpec.describe "The page of a course" do
  let(:folder) { Dir.mktmpdir }
  let(:posts) { CoursePage::Posts.new(File.join(folder, "posts.json")) }
  let(:site) { Rack::MockRequest.new(CoursePage::Site.new(posts, CoursePage::Preview.new("http://127.0.0.1:1"))) }

  after { FileUtils.rm_rf(folder) }

  def post(**given) = site.post("/posts", input: JSON.generate(given))

  it "takes posts, shows them by class, the latest first, and keeps them" do
    first = post(title: "Birds", link: "http://x/join/A", class_name: "Kestrel", opens: "Mon 30 Nov, 08:00", closes: "")
    expect(first.status).to eq(201)
    post(title: "<b>Nests</b>", link: "http://x/join/B", class_name: "Kestrel")
    body = site.get("/").body
    expect(body).to match(%r{Kestrel.*href="http://x/join/B">&lt;b&gt;Nests.*http://x/join/A">Birds.*Mon 30 Nov, 08:00}m)
    expect(CoursePage::Posts.new(File.join(folder, "posts.json")).all.length).to eq(2)
  end

  it "refuses what is no post, too much, or leads nowhere" do
    bad = [{ title: "Birds", link: "javascript:alert(1)" },
           *["", "x" * 300, ["x"]].map { |title| { title: title, link: "http://x" } }]
    expect(bad.map { |given| post(**given).status }).to eq([422] * 4)
    expect(["{", "[]", "x" * 20_000].map { |text| site.post("/posts", input: text).status }).to eq([400, 422, 422])
    expect([site.get("/other").status, site.get("/?paste=http://elsewhere.example/x").body]).to match([404, /elsewhere/])
  end

  it "is posted to from here, with times; and says so when it isn't there" do
    taken = []
    page = Object.new.tap { |each| each.define_singleton_method(:post) { |post| Roost::Core::Reading.ok(taken << post) } }
    session = kept_session(teacher)
    Roost::Operations::PostToCourse.new(page).call(session.account_id, session.id)
    link = "#{Roost.settings.base_url}/join/#{session.code}"
    expect(taken.first.to_h).to include(title: "Birds on the move", link: link, opens: "")
    away = Roost::Exchange::CoursePages::Simulated.new("http://127.0.0.1:1")
    expect(Roost::Operations::PostToCourse.new(away).call(session.account_id, session.id).reason).to eq(away.class::MISSING)
    expect(Roost::Operations::PostToCourse.new(nil).call(session.account_id, session.id).ok?).to be(false)
    expect(Roost::Operations::PostToCourse.new(page).call(0, session.id)).to be_nil
  end

  it "shows of a pasted link its title and no names" do
    session = kept_session(teacher)
    take_seat(session, "Cleo")
    body = get("/join/#{session.code}").body
    expect(body).to include('<meta property="og:title" content="Birds on the move">', 'property="og:description"')
    expect(body).not_to include("Cleo")
  end
end

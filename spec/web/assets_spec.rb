# frozen_string_literal: true

require "zlib"

RSpec.describe "Built files" do
  let(:style) { Roost::Web::Rendering.manifest.fetch("seat.css") }

  def fetch(path, encodings) = get(path, {}, { "HTTP_ACCEPT_ENCODING" => encodings }) && last_response

  it "come as they were packed when they were built, to whoever takes that" do
    plain = fetch(style, "identity").body
    expect(Zlib::Deflate).not_to receive(:new)
    packed = fetch(style, "br, gzip;q=0.5")
    expect(packed.headers).to include("content-encoding" => "gzip", "content-type" => "text/css", "vary" => "accept-encoding",
                                      "cache-control" => Roost::Web::PackedFiles::FOREVER)
    expect(packed.body.bytesize).to be < plain.bytesize / 2
    expect(Zlib.gunzip(packed.body).force_encoding("UTF-8")).to eq(plain.dup.force_encoding("UTF-8"))
  end

  it "come as they are to others, and so do those that packing makes no smaller" do
    expect(fetch(style, "gzip;q=0").headers).not_to include("content-encoding")
    font = Roost::Web::Rendering.manifest.fetch("body.woff2")
    expect(fetch(font, "gzip").headers).not_to include("content-encoding")
    expect(fetch("/assets/none.css", "gzip").status).to eq(404)
  end

  it "and pages are served without anything being put together anew" do
    get "/sign-in"
    expect(Rack::Session::Cookie).not_to receive(:new)
    expect(Rack::Files).not_to receive(:new)
    get "/sign-in"
    expect(fetch(style, "gzip").status).to eq(200)
  end
end

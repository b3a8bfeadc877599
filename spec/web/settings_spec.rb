# frozen_string_literal: true

RSpec.describe Roost::Settings do
  def settings(**env) = described_class.new(env.transform_keys(&:to_s))

  it "never lets the tests at a database that is not theirs" do
    expect do
      settings(ROOST_ENV: "test", DATABASE_URL: "postgres://db/roost").database_url
    end.to raise_error(ArgumentError, /_test/)
    expect(settings(ROOST_ENV: "test", DATABASE_URL: "postgres://db/roost_test").database_url).to end_with("roost_test")
    expect(settings(DATABASE_URL: "postgres://db/roost").database_url).to eq("postgres://db/roost")
  end

  it "makes a secret once and keeps it out of other users' sight" do
    Dir.mktmpdir do |folder|
      secrets = Array.new(2) { settings(ROOST_VAR: folder).session_secret }
      expect(secrets.uniq.length).to eq(1)
      expect(secrets.first.length).to eq(128)
      expect(File.stat(File.join(folder, "secrets/session-secret")).mode & 0o077).to eq(0)
    end
  end

  it "shows the address of the machine on the network where it listens on all, and knows when only itself can reach it" do
    everywhere = settings(ROOST_HOST: "0.0.0.0", ROOST_PORT: "4567")
    allow(everywhere).to receive(:network_address).and_return("192.168.1.20")
    expect([everywhere.base_url, everywhere.typed_url, everywhere.others_reach?])
      .to eq(["http://192.168.1.20:4567", "192.168.1.20:4567", true])
    allow(everywhere).to receive(:network_address).and_return(nil)
    expect([everywhere.base_url, everywhere.others_reach?]).to eq(["http://127.0.0.1:4567", false])
    expect(%w[http://localhost:4567 http://127.0.0.1 http://[::1]:80].map { |url| settings(ROOST_BASE_URL: url).others_reach? })
      .to eq([false] * 3)
    expect(settings(ROOST_BASE_URL: "https://roost.heronsgate.example")).to be_others_reach
    expect(settings.network_address).to be_nil.or match(/\A\d+(?:\.\d+){3}\z/)
  end

  it "marks cookies secure where people use https" do
    expect(settings(ROOST_BASE_URL: "https://roost.heronsgate.example")).to be_secure
    expect(settings).not_to be_secure
  end
end

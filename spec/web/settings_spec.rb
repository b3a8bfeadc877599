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

  it "marks cookies secure where people use https" do
    expect(settings(ROOST_BASE_URL: "https://roost.heronsgate.example")).to be_secure
    expect(settings).not_to be_secure
  end
end

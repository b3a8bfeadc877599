# frozen_string_literal: true

RSpec.describe Roost::Setup::Greeting do
  let(:settings) { Roost::Settings.new("ROOST_PORT" => "4567") }

  def said(**what) = described_class.new(settings, **what).lines

  it "says where to make the first account, and what to do so that phones get in" do
    allow(settings).to receive(:network_address).and_return("192.168.1.20")
    expect(said(first: "http://127.0.0.1:4567/set-up?key=x"))
      .to eq(["Amber Roost: http://127.0.0.1:4567",
              "Make the first account here, within an hour: http://127.0.0.1:4567/set-up?key=x",
              "Only this computer reaches it. For phones on your network: ROOST_HOST=0.0.0.0 bin/start, at http://192.168.1.20:4567",
              "Stop with Ctrl-C."])
    everywhere = Roost::Settings.new("ROOST_HOST" => "0.0.0.0")
    allow(everywhere).to receive(:network_address).and_return("192.168.1.20")
    expect(described_class.new(everywhere).lines).to eq(["Amber Roost: http://192.168.1.20:4567", "Stop with Ctrl-C."])
  end

  it "says how to sign in to the demo" do
    expect(said(sign_in: { email: "falk@heronsgate.example", password: "reeds" }))
      .to include("Sign in at http://127.0.0.1:4567/sign-in as falk@heronsgate.example with reeds")
  end
end

# frozen_string_literal: true

require "socket"
require "tmpdir"

RSpec.describe Roost::Setup::Cluster do
  let(:folder) { Dir.mktmpdir }
  let(:cluster) { described_class.new(Roost::Settings.new("ROOST_VAR" => folder, "ROOST_ENV" => "test")) }
  let(:held) { [] }

  after do
    held.each(&:close)
    FileUtils.rm_r(folder)
  end

  # The ports with which it tries to start a server.
  def tried
    ports = []
    allow(cluster).to receive(:run) do |*command|
      ports << command.last[/port=(\d+)/, 1].to_i
      yield(ports) || raise(described_class::Unavailable, "could not start")
    end
    cluster.send(:launch)
    ports
  end

  it "starts on another port where somebody else was faster" do
    ports = tried { |so_far| so_far.length > 2 || !held.push(TCPServer.new("127.0.0.1", so_far.last)) }
    expect([ports.uniq.length, File.read(File.join(folder, "database-port"))]).to eq([3, ports.last.to_s])
  end

  it "says what is wrong where it is not the port" do
    expect { tried { false } }.to raise_error(described_class::Unavailable, "could not start")
    expect(cluster).to have_received(:run).once
  end
end

# frozen_string_literal: true

require "socket"
require "timeout"

RSpec.describe Roost::Live::Hub do
  let(:gone) { Queue.new }
  let(:hub) { described_class.new(on_close: ->(stream) { gone << stream.about }).tap(&:start) }

  after { hub.stop }

  # @return [Array(Stream, Socket)] the hub's end and the device's end
  def device(about = :device, **group)
    ours, theirs = UNIXSocket.pair
    [hub.add(ours, about, **group), theirs]
  end

  def next_gone = Timeout.timeout(5) { gone.pop }

  it "writes to every stream what is meant for it" do
    devices = Array.new(20) { |number| device(number) }
    devices.map(&:first).each { |stream| hub.write(stream, "data: #{stream.about}\n\n") }
    expect(devices.map { |_stream, socket| socket.readpartial(100) }).to eq((0..19).map { |number| "data: #{number}\n\n" })
  end

  it "knows streams by their group, as long as there are any" do
    (own, _socket), (other, _other_socket) = [1, 2].map { |group| device(group: group) }
    expect([hub.streams_of(1), hub.groups, hub.streams]).to eq([[own], [1, 2], [own, other]])
    hub.drop(own)
    expect([hub.streams_of(1), hub.groups]).to eq([[], [2]])
  end

  it "delivers what a slow device did not take at once, whole and in order" do
    stream, socket = device
    sent = Array.new(40) { |number| number.to_s * 4_000 }
    sent.each { |bytes| hub.write(stream, bytes) }
    expect(socket.read(sent.sum(&:bytesize))).to eq(sent.join)
  end

  it "drops a device that takes nothing, without holding up the others" do
    dead, silent = device(:dead)
    alive, socket = device(:alive)
    reader = Thread.new { socket.read(30 * 100_000) }
    30.times do
      hub.write(dead, "x" * 100_000)
      hub.write(alive, "y" * 100_000)
      sleep 0.01
    end
    expect(reader.value.bytesize).to eq(30 * 100_000)
    expect(next_gone).to eq(:dead)
    expect(dead.waiting.bytesize).to be <= 250_000
    expect(hub.streams).to eq([alive])
    expect(silent).not_to be_closed
  end

  it "notices a device that has left, once" do
    _stream, socket = device(:left)
    socket.close
    expect(next_gone).to eq(:left)
    sleep 0.1
    expect(gone).to be_empty
    expect(hub.streams).to be_empty
  end

  it "takes writes to a stream that is gone for nothing" do
    stream, socket = device
    socket.close
    next_gone
    expect { hub.write(stream, "late") }.not_to raise_error
  end
end

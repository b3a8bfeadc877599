# frozen_string_literal: true

require "socket"

RSpec.describe Roost::Live::Hub do
  let(:gone) { Queue.new }
  let(:hub) { described_class.new(on_close: ->(stream) { gone << stream.about }).tap(&:start) }

  after { hub.stop }

  # @return [Array(Stream, Socket)] the hub's end and the device's end
  def device(about = :device)
    ours, theirs = UNIXSocket.pair
    [hub.add(ours, about), theirs]
  end

  it "writes to every stream what is meant for it" do
    devices = Array.new(20) { |number| device(number) }
    devices.each_with_index { |(stream, _socket), number| hub.write(stream, "data: #{number}\n\n") }
    devices.each_with_index { |(_stream, socket), number| expect(socket.readpartial(100)).to eq("data: #{number}\n\n") }
  end

  it "delivers what a slow device did not take at once, whole and in order" do
    stream, socket = device
    sent = Array.new(40) { |number| number.to_s * 10_000 }
    sent.each { |bytes| hub.write(stream, bytes) }
    expect(socket.read(sent.sum(&:bytesize))).to eq(sent.join)
  end

  it "drops a device that takes nothing, without holding up the others" do
    dead, = device(:dead)
    alive, socket = device(:alive)
    reader = Thread.new { socket.read(30 * 100_000) }
    30.times do
      hub.write(dead, "x" * 100_000)
      hub.write(alive, "y" * 100_000)
      sleep 0.01
    end
    expect(reader.value.bytesize).to eq(30 * 100_000)
    expect(gone.pop).to eq(:dead)
    expect(hub.streams).to eq([alive])
  end

  it "notices a device that has left, once" do
    _stream, socket = device(:left)
    socket.close
    expect(gone.pop).to eq(:left)
    sleep 0.1
    expect(gone).to be_empty
    expect(hub.streams).to be_empty
  end

  it "takes writes to a stream that is gone for nothing" do
    stream, socket = device
    socket.close
    gone.pop
    expect { hub.write(stream, "late") }.not_to raise_error
  end
end

# frozen_string_literal: true

require "socket"

RSpec.describe Roost::Live::Dispatcher do
  # Says on which slide the class is and who is there.
  let(:audience) do
    Class.new(Roost::Live::Audience) do
      attr_writer :failing

      def surface = :desk
      def mark(moment) = [moment.version, moment.names.values]

      private

      def fragment((_version, names), _renderer, _now)
        raise IOError, "not now" if @failing&.positive? && (@failing -= 1)

        "here: #{names.join(", ")}"
      end
    end.new(hub)
  end

  let(:hub) { Roost::Live::Hub.new(on_close: ->(_stream) {}).tap(&:start) }
  let(:audiences) { [audience] }
  let(:renderer) do
    Class.new do
      def seat(view, _now) = "seat on #{view.slide&.id}"
      def for_seat(html, _view, _seat_id) = html
    end
  end
  let(:dispatcher) { described_class.new(hub: hub, audiences: audiences, renderer: -> { renderer.new }, on_moment: ->(_) {}) }
  let!(:session) { kept_session(teacher).tap { |kept| command(kept, "begin") } }

  before { dispatcher.start }

  after { [dispatcher, hub].each(&:stop) }

  # A stream that nobody was told of.
  def stream(about, seat_id = nil)
    ours, theirs = UNIXSocket.pair
    hub.add(ours, Roost::Live::Recipient.new(audience: about, session_id: session.id, seat_id: seat_id), group: session.id)
    theirs
  end

  def heard(socket)
    raise "heard nothing" unless socket.wait_readable(8)

    socket.read_nonblock(100_000)
  end

  def told(scope, socket)
    dispatcher.notice(session.id, scope)
    heard(socket)[/^data: (.*)/, 1]
  end

  it "asks who is there when somebody came or went, not at each command" do
    take_seat(session, "Ada")
    desk = stream(:desk)
    expect(told(:state, desk)).to eq("here: Ada")
    take_seat(session, "Bo")
    command(session, "next")
    expect(told(:state, desk)).to eq("here: Ada")
    expect(told(:people, desk)).to eq("here: Ada, Bo")
  end

  it "asks again who is there when something went wrong" do
    take_seat(session, "Ada")
    desk = stream(:desk)
    told(:state, desk)
    take_seat(session, "Bo")
    command(session, "next")
    audience.failing = 1
    expect { expect(told(:state, desk)).to eq("here: Ada, Bo") }.to output(/told later: IOError/).to_stderr
  end

  context "with seats" do
    let(:audiences) { [Roost::Live::Audiences::Seats.new(hub)] }

    it "knows a seat that came between two notices" do
      ada = stream(:seat, take_seat(session, "Ada").first[:id])
      dispatcher.notice(session.id, :people)
      heard(ada)
      bo = stream(:seat, take_seat(session, "Bo").first[:id])
      command(session, "next")
      dispatcher.notice(session.id, :state)
      expect([ada, bo].map { |socket| heard(socket) }).to all(include("seat on s2"))
    end
  end
end

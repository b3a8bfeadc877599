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

  [%i[Seats Board], %i[Board Seats]].each do |order|
    context "with a board, and #{order.join(" before ")}" do
      let(:audiences) { order.map { |name| Roost::Live::Audiences.const_get(name).new(hub) } }
      let(:renderer) do
        Class.new do
          def seat(view, _now) = "seat on #{view.slide.id}, #{view.tally ? view.tally.up.length : "no"} cards"
          def for_seat(html, _view, _seat_id) = html
        end
      end
      let!(:session) do
        board = Roost::Core::Kinds::Posts::Prompt.new(id: "p1", settings: { "approve" => false })
        slides = [slide("s1", prompt: board), slide("s2")]
        kept_session(teacher, Roost::Core::Lesson.new(title: "Marsh", slides: slides)).tap { |kept| command(kept, "begin") }
      end

      it "sends each seat what it has not, once: who is new, who sees another's card, and all at a command" do
        writer, reader, late = %w[Ada Bo Cleo].map { |name| take_seat(session, name).first }
        first = stream(:seat, reader[:id])
        dispatcher.notice(session.id, :people)
        expect(heard(first).scan(/^data: (.*)/).flatten).to include("seat on s1, 0 cards").once
        save(session, writer, "s1", { "posts" => [JSON.generate([{ "id" => "p1", "text" => "Storks" }])] }, final: false)
        dispatcher.notice(session.id, :answers)
        expect(heard(first).scan("seat on s1, 1 cards").length).to eq(1)
        second = stream(:seat, late[:id])
        dispatcher.notice(session.id, :people)
        expect(heard(second).scan("seat on").length).to eq(1)
        command(session, "next")
        dispatcher.notice(session.id, :state)
        expect([first, second].map { |socket| heard(socket).scan(/seat on s\d, \w+/) }).to eq([["seat on s2, no"]] * 2)
      end
    end
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

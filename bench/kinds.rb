# frozen_string_literal: true

require "yaml"

module Bench
  # What each kind of question costs: its tally with one new answer among 30, 300 and 1,500,
  # by itself and from the answer sent to the count at the Desk; and what single kinds measure.
  class Kinds
    SIZES = [30, 300, 1500].freeze
    TURNS = 15
    ROUNDS = 9
    LESSONS = %w[birds-on-the-move voices-of-the-marsh].freeze
    # What single kinds measure beside that: bench/kinds/KIND/measure.rb.
    OWN = Dir[File.join(__dir__, "kinds/*/measure.rb")].map { |path| path.tap { require path }[%r{(\w+)/measure}, 1] }
                                                       .map { |kind| const_get(kind.capitalize) }
    GOALS = { tally_growth_max: "at most 2.5" }.merge(*OWN.map { |kind| kind::GOALS }).freeze

    Filled = Struct.new(:size, :session, :keep, :stream, keyword_init: true)
    private_constant :Filled

    # @param account [Integer] id of the teacher that `server` signs in
    # @param server [Server]
    def initialize(account, server)
      @account = account
      @server = server
      @http, @headers = server.teacher
    end

    # @return [Hash{Symbol=>Numeric}]
    def call
      growths = {}
      alone = {}
      to_desk(prompts.first) # to warm up
      prompts.each do |prompt|
        desk = to_desk(prompt)
        SIZES.each do |size|
          alone[:"tally_#{prompt.kind}_#{size}_desk_ms"] = desk[size].round
          alone[:"tally_#{prompt.kind}_#{size}_ms"] = by_itself(prompt, size).round(2)
        end
        growths[prompt.kind] = desk[1500] / desk[30]
      end
      { tally_growth_max: growths.values.max.round(2), **OWN.map { |kind| kind.new(self, @server).call }.reduce(:merge), **alone }
    end

    # A session that asks this.
    def session(prompt)
      slide = Roost::Core::Slide.new(id: "s1", heading: "Measured", prompt: prompt)
      lesson = Roost::Store::Lessons.new.create(@account, Roost::Core::Lesson.new(title: "Bench", slides: [slide]))
      form = { "opens_itself" => "1", "may_change" => "1" }
      session = Roost::Operations::StartSession.new.call(@account, lesson, form).value
      Roost::Operations::CommandSession.new.call(session.account_id, session.id, "begin")
      session
    end

    # A Desk that is open.
    def desk(session)
      stream = Streams.new(Server::HOST, @server.port, ["/stream/desk/#{session.id}"]) { "Cookie: #{@headers["cookie"]}\r\n" }
      stream.tap { stream.wait_until { |text| text.include?("\n\n") } }
    end

    private

    # One of each kind, from the demo lessons.
    def prompts
      slides = LESSONS.flat_map { |name| YAML.safe_load_file(File.join(Roost::Settings::ROOT, "demo/lessons/#{name}.yml"))["slides"] }
      sources = slides.filter_map { |slide| slide["prompt"] }.uniq { |source| source["kind"] }
      sources.map do |source|
        plain = source.except("kind", "time_limit")
        plain["options"] = plain["options"].map { |option| option.except("drawing") } if plain["options"]
        Roost::Core::Kinds.named(source["kind"]).new(id: "p1", settings: plain)
      end
    end

    def imagined(prompt, count)
      random = Random.new(7)
      Roost::Core::Practice::Roster.students(count, seed: 3).map { |student| prompt.simulate(student, random) }
    end

    # Median milliseconds of one tally when one answer is new.
    def by_itself(prompt, size)
      values = imagined(prompt, size + ROUNDS).each_with_index.to_h { |value, seat_id| [seat_id, value] }
      gather = ->(given, before) { prompt.gathered(given, names: {}, curation: Roost::Core::Session::Curation::BLANK, before: before) }
      before = gather.call(values.first(size).to_h, nil)
      Bench.median(Array.new(ROUNDS) do |turn|
        given = values.first(size + turn + 1).to_h
        began = Bench.clock
        before = gather.call(given, before)
        (Bench.clock - began) * 1000
      end)
    end

    # Median milliseconds from an answer sent to its count at the Desk, by how many were there.
    # Large and small take turns, so that a slow moment of the machine meets all.
    # @return [Hash{Integer=>Float}]
    def to_desk(prompt)
      rooms = SIZES.map { |size| room(prompt, size) }
      # Answers are read again for two seconds after they came; the lesson has gone on for longer.
      sleep Roost::Live::SessionCache::OVERLAP + 0.3
      rooms.each { |room| Roost::Live::Bus.announce(room.session.id, :state) }
      turns = Array.new(TURNS) { |turn| rooms.map { |room| arrival(room, room.size + turn) } }
      SIZES.zip(turns.transpose.map { |times| Bench.median(times) }).to_h
    ensure
      rooms&.each { |room| room.stream.close }
    end

    # A session in which so many have answered, and a Desk that is open.
    def room(prompt, size)
      session = session(prompt)
      seats = Array.new(size + TURNS) { |number| Roost::Store::Seats.new.create(session.id, "Student #{number}") }
      values = imagined(prompt, size + TURNS)
      answers = Roost::Store::Answers.new
      keep = lambda do |place|
        answers.save(session_id: session.id, seat_id: seats[place].first, slide_id: "s1", value: values[place], final: true,
                     keyed: prompt.keyed?, save_no: 1, save_id: SecureRandom.uuid)
      end
      size.times(&keep)
      Filled.new(size: size, session: session, keep: keep, stream: desk(session))
    end

    # One more answers, as the one at this place.
    def arrival(room, place)
      sleep 0.3
      reader = Thread.new { room.stream.wait_until { |text| text.include?("<strong>#{place + 1}</strong> answered") } }
      sleep 0.02
      began = Bench.clock
      room.keep.call(place)
      Roost::Live::Bus.announce(room.session.id, :answers)
      (reader.value - began) * 1000
    end
  end
end

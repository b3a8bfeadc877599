# frozen_string_literal: true

RSpec.describe Roost::Store do
  describe Roost::Store::Database do
    # Another server, that refuses so often.
    def starting(times)
      allow(described_class).to receive(:sleep)
      allow(described_class).to receive(:connection) do
        times -= 1
        raise Sequel::DatabaseConnectionError, "the database system is starting up" if times >= 0

        :connected
      end
    end

    it "is waited for while it starts" do
      starting(3)
      expect(described_class.await).to eq(:connected)
      expect(described_class).to have_received(:sleep).thrice
    end

    it "is not waited for without end" do
      starting(Float::INFINITY)
      expect { described_class.await(seconds: 0.1) }.to raise_error(Sequel::DatabaseConnectionError)
    end
  end

  describe Roost::Store::Counters do
    let(:counters) { described_class.new }

    it "counts up and starts anew once the time is over" do
      expect(Array.new(3) { counters.increment("a", expires_in: 60) }).to eq([1, 2, 3])
      database[:counters].update(expires_at: Sequel.lit("now() - interval '1 second'"))
      expect(counters.read("a")).to be_nil
      expect(counters.increment("a", expires_in: 60)).to eq(1)
    end

    it "loses no count when many count at once" do
      at_once((1..60).to_a) { counters.increment("b", expires_in: 60) }
      expect(counters.read("b")).to eq(60)
    end

    it "forgets what is deleted and overwrites what is written" do
      counters.write("c", 5, expires_in: 60)
      counters.write("c", 7, expires_in: 60)
      expect(counters.read("c")).to eq(7)
      counters.delete("c")
      expect(counters.read("c")).to be_nil
    end
  end

  describe Roost::Store::Seats do
    let(:seats) { described_class.new }
    let(:session) { kept_session(teacher) }
    let(:id) { take_seat(session).first[:id] }

    def here? = seats.of(session.id).first.here

    it "is here while its stream is seen, and away once it has not been for a while" do
      seats.arrive(id, "stream-1")
      expect(here?).to be(true)
      database[:seats].update(seen_at: Sequel.lit("now() - interval '20 seconds'"))
      expect(here?).to be(false)
      seats.still_here(["stream-1"])
      expect(here?).to be(true)
    end

    it "can be left by its present stream only" do
      seats.arrive(id, "stream-1")
      seats.arrive(id, "stream-2")
      seats.leave(["stream-1"])
      expect(here?).to be(true)
      seats.leave(["stream-2"])
      expect(here?).to be(false)
    end

    it "gives no second seat of one name in a session" do
      id
      expect(seats.create(session.id, "CLEO")).to be_nil
    end

    it "lets one process at a time do what only one should" do
      inside = Queue.new
      go_on = Queue.new
      one = Thread.new do
        seats.alone(1, session.id) do
          inside << true
          go_on.pop
        end
      end
      inside.pop # it holds it now
      expect(at_once([1, 2, 3]) { seats.alone(1, session.id) { true } }).to eq([nil, nil, nil])
      expect(seats.alone(2, session.id) { true }).to be(true)
      go_on << :done
      expect(one.value).to eq(:done)
      expect(seats.alone(1, session.id) { true }).to be(true)
    end
  end

  describe "the schema" do
    it "goes all the way down and up again" do
      migrated_down_to(0) { expect(database.tables).to eq([:schema_info]) }
      expect(database.tables).to include(:answers, :counters)
    end

    it "brings lessons that were one document each, and their history, to rows, and back" do
      account = teacher
      Roost::Store::Database.migrate(target: 4)
      document = lambda do |*headings|
        slides = headings.each_with_index.map { |heading, place| { "id" => "s#{place}", "rev" => 1, "heading" => heading } }
        Sequel.pg_jsonb({ "schema" => 1, "title" => "Old", "slides" => slides })
      end
      versions = [%w[One], %w[One Two], ["One", "Two, changed"]]
      id = database[:lessons].insert(account_id: account, revision: 3, document: document.call(*versions.last))
      versions.each.with_index(1) do |headings, number|
        database[:lesson_revisions].insert(lesson_id: id, number: number, account_id: account, document: document.call(*headings))
      end
      Roost::Store::Database.migrate
      revisions = Roost::Store::Revisions.new
      expect(Roost::Store::Lessons.new.find(account, id).lesson.slides.map(&:heading)).to eq(versions.last)
      expect((1..3).map { |number| revisions.lesson(id, number).slides.map(&:heading) }).to eq(versions)
      expect(revisions.of(id).map { |revision| revision.slides.keys }).to eq([%w[s1], %w[s1], %w[s0]])
      expect(Roost::Store::Catalogue.new.find(account, query: "changed").length).to eq(1)
      Roost::Store::Database.migrate(target: 4)
      kept = database[:lesson_revisions].where(lesson_id: id).order(:number).select_map(:document)
      expect(kept.map { |each| each["slides"].map { |slide| slide["heading"] } }).to eq(versions)
    ensure
      Roost::Store::Database.migrate
    end

    it "finds the family part of names that are there" do
      names = { "Ada Lindqvist" => "Lindqvist", "Ada van der Berg" => "van der Berg", "Marguerite" => "",
                "Theo Whit Jr" => "Whit Jr" }
      ids = Roost::Store::Students.new.create(teacher, names.keys.map { |name| { name: name, shown_name: name } })
      migrated_down_to(41) { expect(database[:students].columns!).not_to include(:family) }
      expect(database[:students].where(id: ids).as_hash(:name, :family)).to eq(names)
    end

    it "links copies of a question that were made before copies knew where they come from, where question and key are equal" do
      account = teacher
      asked = { "One" => ["p1", %w[o1]], "Two" => ["p2", %w[o1]], "Three" => ["p3", %w[o2]] }
      ids = asked.map do |title, (id, keys)|
        slides = [slide("s1", heading: "Who flies south?", prompt: choice(id: id, keys: keys, points: id == "p2" ? 50 : 100))]
        kept_lesson(account, Roost::Core::Lesson.new(title: title, slides: slides))
      end
      same = Roost::Core::Lesson.new(title: "Hers", slides: [slide("s1", heading: "Who flies south?",
                                                                         prompt: choice(id: "p9", keys: %w[o1], points: 100))])
      others = kept_lesson(teacher(email: "moss@heronsgate.example"), same)
      session = Roost::Operations::StartSession.new.call(account, ids[1], {}).value
      migrated_down_to(46) { nil }
      origins = (ids + [others]).map { |id| Roost::Store::Lessons.new.slide(id, "s1").prompt.origin }
      expect(origins).to eq(%w[p1 p1 p3 p9])
      frozen = Roost::Store::Sessions.new.lesson_of(Roost::Store::Sessions.new.find(session.id))
      expect(frozen.slide("s1").prompt.origin).to eq("p1")
    end

    it "brings what was done about questions from the state to rows, and back" do
      session = kept_session(teacher, own_copy: true)
      seats = %w[Ada Bo].map { |name| take_seat(session, name).first[:id] }
      command(session, "begin")
      command(session, "jump", slide: "s3")
      command(session, "put_aside", slide: "s3")
      database[:pair_rounds].insert(session_id: session.id, number: 1, groups: Sequel.pg_jsonb([seats]))
      lists = { removed: %w[mud owl], pinned: ["7-p1"] }.transform_values { |list| Sequel.pg_array(list, :text) }
      database[:curations].insert(session_id: session.id, slide_id: "s4", columns: Sequel.pg_jsonb({ "7-p1" => 2 }), **lists)
      # How often a round was played was not kept then.
      facts = lambda do
        known = Roost::Store::Sessions.new.find(session.id).state.facts
        openings = known.openings.transform_values { |all| all.map { |each| each.to_h.except(:play) } }
        known.with(plays: nil, openings: openings)
      end
      before = facts.call
      state = lambda do
        database[:sessions].where(id: session.id).get(:state).to_h.slice("aside", "pairs", "curated")
      end
      curated = { "removed" => %w[mud owl], "approved" => [], "pinned" => ["7-p1"], "columns" => { "7-p1" => 2 }, "own" => {} }
      migrated_down_to(44) do
        expect(state.call).to eq({ "aside" => ["s3"], "pairs" => [[seats]], "curated" => { "s4" => curated } })
      end
      expect([facts.call, state.call]).to eq([before, {}])
      expect([before.set_aside, before.pairs, before.curation("s4").removed]).to eq([["s3"], [[seats]], %w[mud owl]])
    end

    it "lets a session that was begun before go on and end after it, with what a device had waiting" do
      session = kept_session(teacher)
      seat = take_seat(session, "Ada").first
      before = database.get(Sequel.lit("date_part('epoch', clock_timestamp())")).to_f
      Roost::Store::Database.migrate(target: 14)
      runs = { "s2" => { "opened_at" => before - 50, "deadline" => nil, "closed_at" => before - 20 },
               "s3" => { "opened_at" => before - 10, "deadline" => before + 60, "closed_at" => nil } }
      state = database[:sessions].where(id: session.id).get(:state).to_h
      state.merge!("phase" => "live", "slide_id" => "s3", "runs" => runs, "showing" => { "results" => true, "way" => "sheet" })
      database[:sessions].where(id: session.id).update(state: Sequel.pg_jsonb(state))
      row = { session_id: session.id, seat_id: seat[:id], slide_id: "s2" }
      database[:answers].insert(**row, value: Sequel.pg_jsonb({ "options" => ["o1"] }), final: true, late: false, save_no: 1,
                                       save_id: SecureRandom.uuid, received_at: Time.at(before - 30))
      database[:deliveries].insert(**row, sent_at: Time.at(before - 45))
      Roost::Store::Database.migrate

      now = moment(session)
      expect([now.state.open?, now.state.look, now.attempt]).to eq([true, { "way" => "sheet" }, 1])
      expect(now.record.seconds("s2")[seat[:id]]).to be_within(0.001).of(15)
      waiting = message("s3", picked("o1")).except("attempt", "writer", "over") # as devices sent it then
      lesson = Roost::Store::Sessions.new.lesson(session.id)
      expect(Roost::Operations::SaveAnswer.new.call(seat, lesson, waiting).state).to eq("final")
      command(session, "next", from: "s3")
      command(session, "end")
      line = Roost::Core::Analysis::Results.new(moment(session).record).lines.first
      expect(line.outcomes.values.map(&:status)).to eq(%i[given right])
      Roost::Store::Database.migrate(target: 14)
      kept = database[:sessions].where(id: session.id).get(:state)["runs"]
      expect(kept["s2"]).to match(runs["s2"].transform_values { |time| time && be_within(0.001).of(time) })
      expect(kept["s3"]["closed_at"]).not_to be_nil
    ensure
      Roost::Store::Database.migrate
    end

    it "holds what must hold, whatever the code does" do
      session = kept_session(teacher)
      other = kept_session(teacher(email: "rowe@heronsgate.example"))
      seat = take_seat(other).first
      save = lambda do |session_id|
        database[:answers].insert(session_id: session_id, seat_id: seat[:id], slide_id: "s2", value: Sequel.pg_jsonb({}),
                                  final: true, late: false, save_no: 1, save_id: SecureRandom.uuid, received_at: Time.now)
      end
      expect { save.call(session.id) }.to raise_error(Sequel::ForeignKeyConstraintViolation)
      save.call(other.id)
      expect { save.call(other.id) }.to raise_error(Sequel::UniqueConstraintViolation)
      expect { database[:accounts].insert(email: "no address", name: "x") }.to raise_error(Sequel::CheckConstraintViolation)
    end
  end

  describe Roost::Store::Sessions do
    it "may use a code again once its session has ended, and finds the open one by it" do
      account = teacher
      ended = kept_session(account)
      command(ended, "end")
      open = kept_session(account)
      database[:sessions].where(id: open.id).update(code: ended.code)
      expect(described_class.new.by_code(ended.code).id).to eq(open.id)
      expect { database[:sessions].insert(database[:sessions].where(id: open.id).first.except(:id).merge(screen_key: "x")) }
        .to raise_error(Sequel::UniqueConstraintViolation)
    end

    it "offers back what was deleted within thirty days" do
      account = teacher
      session = kept_session(account)
      command(session, "end")
      described_class.new.mark_deleted(account, session.id, true)
      expect(Roost::Store::PastSessions.new.deleted_lately(account).map(&:id)).to eq([session.id])
      database[:sessions].update(deleted_at: Sequel.lit("now() - interval '31 days'"))
      expect(Roost::Store::PastSessions.new.deleted_lately(account)).to be_empty
    end
  end
end

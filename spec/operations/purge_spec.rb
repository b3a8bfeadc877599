# frozen_string_literal: true

# What was deleted is looked for afterwards in every table there is, and in the folder of media.
RSpec.describe Roost::Operations::Purge do
  let(:account) { teacher }
  let(:photograph) { Vips::Image.black(30, 20, bands: 3).write_to_buffer(".jpg") }
  let(:media) { Roost::Store::Media.new }

  def keep(bytes, **from) = media.keep_picture(bytes, extension: "jpg", width: 30, height: 20, account_id: account, **from)

  # Every row of every table, as text.
  def everything
    tables = database.tables - %i[schema_info que_jobs]
    tables.flat_map { |table| database[table].all }.join("\n")
  end

  def long_ago(days) = Sequel.lit("now() - make_interval(days => ?)", days)

  # A lesson with a picture, run once: a student with a name no other has, who wrote and sent a picture.
  def marsh
    used = keep(photograph)
    board = Roost::Core::Kinds::Posts::Prompt.new(id: "p2", settings: { "approve" => false })
    lesson = Roost::Core::Lesson.new(title: "Sallowmere", slides: [slide("s1", prompt: writing(id: "p1"), pictures: [used]),
                                                                   slide("s2", prompt: board)])
    session = kept_session(account, lesson)
    seat = take_seat(session, "Wilhelmine").first
    command(session, "begin")
    save(session, seat, "s1", { "text" => ["The bittern booms"] })
    command(session, "next")
    sent = keep("#{photograph} from a phone", seat_id: seat[:id])
    post = { "id" => "p1", "text" => "Kingfisher", "picture" => sent.to_document }
    save(session, seat, "s2", { "posts" => [JSON.generate([post])], "likes" => ["[]"], "writing" => [""] }, save_no: 2)
    command(session, "end")
    database[:media].update(created_at: long_ago(3))
    [session, used.file, sent.file]
  end

  words = %w[Sallowmere Wilhelmine bittern Kingfisher]

  it "leaves everything that is not deleted, or was deleted lately" do
    session, *files = marsh
    Roost::Store::Sessions.new.mark_deleted(account, session.id, true)
    Roost::Store::Lessons.new.mark_deleted(account, session.lesson_id, true)
    described_class.new.call(days: 30)
    expect(words.select { |word| everything.include?(word) }).to eq(words)
    expect(files.map { |file| media.find(file) }).to all(be_an(Array))
  end

  it "keeps the pictures of a draft that can't be read as an answer" do
    sent = marsh.last
    typed = Sequel.pg_jsonb({ "posts" => [JSON.generate([{ "id" => "p1", "picture" => { "file" => sent } }])] })
    database[:answers].where(slide_id: "s2").update(value: Sequel.pg_jsonb({}), typed: typed)
    described_class.new.call(days: 30)
    expect(media.find(sent)).to be_an(Array)
  end

  it "keeps the pictures of what another window wrote beside what counts" do
    sent = marsh.last
    beside = Sequel.pg_jsonb({ "posts" => [JSON.generate([{ "id" => "p1", "picture" => { "file" => sent } }])] })
    database[:answers].where(slide_id: "s2").update(value: Sequel.pg_jsonb({}), conflicting_version: beside)
    described_class.new.call(days: 30)
    expect(media.find(sent)).to be_an(Array)
  end

  it "takes a deleted session with all that its students gave, and not the lesson" do
    session, used, sent = marsh
    Roost::Operations::WriteEvidence.new.call([session.id])
    earned = -> { %i[evidence seat_results].map { |table| database[table].count } }
    expect(earned.call.sum).to be_positive
    Roost::Store::Sessions.new.mark_deleted(account, session.id, true)
    database[:sessions].update(deleted_at: long_ago(31))
    expect(described_class.new.call(days: 30)).to include(sessions: 1, lessons: 0, media: 1)
    expect(words.select { |word| everything.include?(word) }).to eq(%w[Sallowmere])
    expect(everything).not_to include(sent)
    expect(earned.call).to eq([0, 0])
    expect([media.find(used), media.find(sent)]).to match([an_instance_of(Array), nil])
  end

  it "takes a deleted lesson with its history, and its pictures once no session has them" do
    session, *files = marsh
    database[:lessons].update(deleted_at: long_ago(31))
    described_class.new.call(days: 30)
    expect(database[:lesson_revisions].count).to eq(0)
    expect(media.find(files.first)).to be_an(Array)
    Roost::Store::Sessions.new.mark_deleted(account, session.id, true)
    database[:sessions].update(deleted_at: long_ago(31))
    described_class.new.call(days: 30)
    expect(words.select { |word| everything.include?(word) }).to be_empty
    expect(files.map { |file| media.find(file) }).to eq([nil, nil])
  end

  describe "a class list" do
    ops = Roost::Operations
    let(:classes) do
      %w[Kestrel Avocet].map { |name| ops::KeepClass.new.create(account, { "name" => name }).value }
    end

    def fill(id, *names)
      cells = names.map { |name| { name: name, number: "N#{name.length}", notes: "of #{name}" } }
      rows = cells.each_with_index.map { |cell, place| [place + 1, cell] }
      Roost::Operations::FillClass.new.fill(account, id, Roost::Core::ClassList.read(rows).value)
      Roost::Store::Students.new.of_class(id).map(&:id)
    end

    # A session in which both sat, one of them renamed, and answered.
    def session_of(class_id)
      form = { "class_id" => class_id.to_s, "entry" => "free", "extra" => "Table", "opens_itself" => "1" }
      session = Roost::Operations::StartSession.new.call(account, kept_lesson(account), form).value
      seats = %w[Wilhelmine Kunigunde].map do |name|
        Roost::Store::Seats.new.by_token(Roost::Operations::JoinSession.new.call(session.code, name, extra: "Extra#{name}").value)
      end
      Roost::Operations::RenameSeat.new.call(account, session.id, seats.first[:id], "Wilhelmine the Swift")
      command(session, "begin")
      command(session, "jump", slide: "s4")
      seats.each { |seat| save(session, seat, "s4", { "text" => ["By the stars"] }) }
      command(session, "end")
      session
    end

    def words(*all) = all.select { |word| everything.include?(word) }

    it "goes though somebody else sits under any name that a seat could be given in its place" do
      fill(classes[0], "Wilhelmine")
      session = session_of(classes[0])
      wilhelmine = database[:seats].exclude(student_id: nil).get(:id)
      [Roost::Store::Seats::NAMELESS, "Student"].each do |name|
        Roost::Operations::JoinSession.new.call(session.code, "#{name} #{wilhelmine}", extra: "x")
        database[:seats].insert(session_id: session.id, name: "#{name.strip[0, Roost::Core::SeatName::LIMIT]} #{wilhelmine}",
                                token_digest: Sequel.blob(name))
      end
      database[:students].update(deleted_at: long_ago(31))
      expect(described_class.new.call(days: 30)).to include(students: 1)
      expect(database[:seats].where(id: wilhelmine).get(:name)).to eq("#{Roost::Store::Seats::NAMELESS}#{wilhelmine}")
    end

    it "goes with who is in no other class; what they did stays, without a name" do
      fill(classes[0], "Wilhelmine", "Kunigunde")
      fill(classes[1], "Kunigunde")
      session = session_of(classes[0])
      ops::KeepClass.new.delete(account, classes[0])
      described_class.new.call(days: 30)
      expect(words("Kestrel", "Wilhelmine", "Kunigunde").length).to eq(3)
      database[:classes].where(id: classes[0]).update(deleted_at: long_ago(31))
      expect(described_class.new.call(days: 30)).to include(classes: 1, students: 1)
      expect(words("Wilhelmine", "ExtraWilhelmine", "of Wilhelmine", "the Swift")).to eq([])
      expect(words("Kunigunde", "of Kunigunde", "By the stars").length).to eq(3)
      results = Roost::Core::Analysis::Results.new(Roost::Store::Records.new.of(Roost::Store::Sessions.new.find(session.id)))
      expect(results.lines.map { |line| [line.seat.name.sub(/\d+/, "N"), line.outcomes["s4"].status] })
        .to eq([["#{Roost::Store::Seats::NAMELESS}N", :given], ["Kunigunde", :given]])
    end

    it "loses a student who is deleted, from every table, and not before they could be brought back" do
      wilhelmine, = fill(classes[0], "Kunigunde", "Wilhelmine").reverse
      session_of(classes[0])
      seats = database[:seats].where(name: ["Wilhelmine the Swift", "Kunigunde"]).order(:id).select_map(:id)
      seats.zip(%w[Whimbrel Curlew]) do |seat_id, text|
        Roost::Store::Notes.new.save(seat_id, "s4", text: text, save_no: 1, save_id: SecureRandom.uuid, writer: nil, over: [])
        Roost::Store::Comments.new.write(seat_id, "s4", "Of the #{text.downcase}")
      end
      ops::KeepStudent.new.delete(account, classes[0], wilhelmine)
      expect(Roost::Store::Students.new.of_class(classes[0]).map(&:name)).to eq(["Kunigunde"])
      described_class.new.call(days: 30)
      ops::KeepStudent.new.delete(account, classes[0], wilhelmine, deleted: false)
      expect(Roost::Store::Students.new.of_class(classes[0]).map(&:notes)).to eq(["of Kunigunde", "of Wilhelmine"])
      ops::KeepStudent.new.delete(account, classes[0], wilhelmine)
      database[:students].where(id: wilhelmine).update(deleted_at: long_ago(31))
      expect(described_class.new.call(days: 30)).to include(students: 1, classes: 0)
      expect(words("Wilhelmine", "ExtraWilhelmine", "of Wilhelmine", "N10", "Whimbrel", "whimbrel")).to eq([])
      expect(words("Kunigunde", "Curlew", "curlew")).to eq(%w[Kunigunde Curlew curlew])
    end
  end

  it "forgets mails, links, devices and what was half made" do
    Roost::Store::Outbox.new.add(recipient: "falk@heronsgate.example", subject: "Old", body: "link")
    Roost::Store::SignIns.new.keep_sign_up(email: "rowe@heronsgate.example", name: "Rowe")
    Roost::Store::SignIns.new.remember(account, "a device")
    database[:outbox_mails].update(sent_at: long_ago(31))
    database[:sign_ups].update(created_at: long_ago(2))
    database[:sign_in_devices].update(last_at: long_ago(181))
    stray = Roost.settings.var("media", "#{"b" * 64}.jpg")
    File.write(stray, "half")
    File.utime(Time.now - 200_000, Time.now - 200_000, stray)
    expect(described_class.new.call).to include(outbox_mails: 1, sign_ups: 1, sign_in_devices: 1)
    expect(File.exist?(stray)).to be(false)
  end

  it "keeps a picture that comes while it is at work" do
    kept = at_once((1..12).to_a) do |number|
      number.odd? ? keep("#{photograph}#{number}") : described_class.new.call(days: 0)
    end
    expect(kept.grep(Roost::Core::Picture).map { |picture| media.find(picture.file) }).to all(be_an(Array))
  end

  it "is waiting once a day, and once only, as is what ends sessions" do
    2.times { [Roost::Jobs::Purge, Roost::Jobs::CloseSessions].each(&:schedule) }
    expect(database[:que_jobs].select_order_map(:job_class)).to eq(%w[Roost::Jobs::CloseSessions Roost::Jobs::Purge])
  end
end

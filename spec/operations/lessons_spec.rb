# frozen_string_literal: true

require "open3"

RSpec.describe "Preparing a lesson" do
  let(:account) { teacher }
  let(:lessons) { Roost::Store::Lessons.new }
  let(:id) { kept_lesson(account) }

  def edit(slide_id, rev:, heading:, by: account)
    Roost::Operations::EditSlide.new.call(by, id, slide_id, rev: rev) { |slide| Roost::Core::Reading.ok(slide.with(heading: heading)) }
  end

  def heading(slide_id = "s1") = lessons.find(account, id).lesson.slide(slide_id).heading

  it "refuses to save over a newer version of the same slide, and leaves it as it is" do
    expect(edit("s1", rev: 1, heading: "First")).to be_ok
    expect(edit("s1", rev: 1, heading: "Second").reason).to start_with("Another window of yours changed the same meanwhile.")
    expect(heading).to eq("First")
    expect(edit("s2", rev: 1, heading: "Another slide")).to be_ok
  end

  it "undoes step by step, further back each time, and keeps going after a new edit" do
    edit("s1", rev: 1, heading: "One")
    time_passes
    edit("s1", rev: 2, heading: "Two")
    undo = -> { Roost::Operations::UndoLesson.new.call(account, id) }
    undo.call
    expect(heading).to eq("One")
    undo.call
    expect(heading).to eq("Dusk over the marsh")
    expect(undo.call.reason).to eq("There is nothing more to undo.")
    edit("s1", rev: lessons.find(account, id).lesson.slide("s1").rev, heading: "Three")
    undo.call
    expect(heading).to eq("Dusk over the marsh")
  end

  def time_passes = database[:lesson_revisions].update(created_at: Sequel.lit("created_at - interval '61 seconds'"))

  def undo(way = :undo, lesson: id) = Roost::Operations::UndoLesson.new.call(account, lesson, way)

  def type(words, slide_id: "s1", field: :heading, from: lessons.slide(id, slide_id).rev)
    words.each_with_index do |word, place|
      Roost::Operations::EditSlide.new.call(account, id, slide_id, rev: from + place) do |slide|
        Roost::Core::Reading.ok(slide.with(field => word))
      end
    end
  end

  it "takes what was typed in one field within a minute for one step, and nothing else" do
    type(%w[B Bi Bir Birds])
    type(%w[n no note], field: :notes)
    expect(Roost::Store::Revisions.new.of(id).map(&:number)).to eq([8, 5, 1])
    undo
    expect([heading, lessons.slide(id, "s1").notes]).to eq(["Birds", ""])
    undo
    expect(heading).to eq("Dusk over the marsh")
    type(%w[A Ab])
    time_passes
    type(%w[Abo])
    undo
    expect(heading).to eq("Ab")
  end

  it "does again what was undone, as often, until something else is changed" do
    type(%w[One])
    type(["x"], field: :notes)
    3.times { undo }
    expect([undo(:redo).ok?, heading]).to eq([true, "One"])
    expect([undo(:redo).ok?, lessons.slide(id, "s1").notes]).to eq([true, "x"])
    expect(undo(:redo).reason).to eq("There is nothing to redo.")
    undo
    expect([lessons.slide(id, "s1").notes, heading]).to eq(["", "One"])
    type(["y"], field: :text)
    expect(undo(:redo).reason).to eq("There is nothing to redo.")
  end

  it "comes back to every state there was, by undo and redo, whatever was changed" do
    states = [lessons.find(account, id).lesson]
    changes = [->(lesson) { lesson.renamed("Other") }, ->(lesson) { lesson.without_slides(["s2"]) },
               ->(lesson) { lesson.moving(["s4"], 0) }, ->(lesson) { lesson.sectioned(%w[s1 s5], "q", "quiz") }]
    bare = ->(lesson) { lesson.with(slides: lesson.slides.map { |slide| slide.with(rev: 0) }) }
    changes.each do |change|
      Roost::Operations::ChangeLesson.new.call(account, id) { |lesson| Roost::Core::Reading.ok(change.call(lesson)) }
      states << lessons.find(account, id).lesson
    end
    back = (1...states.length).map { undo.value.lesson }
    expect(back.map(&bare)).to eq(states[0..-2].reverse.map(&bare))
    expect((1...states.length).map { undo(:redo).value.lesson }.map(&bare)).to eq(states[1..].map(&bare))
  end

  describe "slides moved to another lesson" do
    let(:other) { kept_lesson(account, Roost::Core::Lesson.new(title: "Other", slides: [slide("z1")])) }

    before { Roost::Operations::MoveSlides.new.call(account, id, other, %w[s2 s3]) }

    def ids(lesson) = lessons.find(account, lesson).lesson.slides.map(&:id)

    it "are back in one and gone from the other when it is undone in either, and again moved by redo" do
      [id, other].each do |lesson|
        expect(undo(lesson: lesson)).to be_ok
        expect([ids(id), ids(other)]).to eq([%w[s1 s2 s3 s4 s5], %w[z1]])
        expect(undo(:redo, lesson: lesson)).to be_ok
        expect([ids(id), ids(other)]).to eq([%w[s1 s4 s5], %w[z1 s2 s3]])
      end
    end

    it "stay where they are, in both, once they have changed there" do
      Roost::Operations::EditSlide.new.call(account, other, "s2", rev: 1) { |slide| Roost::Core::Reading.ok(slide.with(heading: "New")) }
      expect(undo.reason).to start_with("These slides were moved between this lesson and another")
      expect([ids(id), ids(other)]).to eq([%w[s1 s4 s5], %w[z1 s2 s3]])
    end
  end

  describe "two who edit one slide" do
    let(:rowe) { teacher(email: "rowe@heronsgate.example", name: "Mr Rowe") }

    before { Roost::Store::Sharing.new.share(id, rowe, may_edit: true) }

    def change(by, rev: 1, **parts)
      Roost::Operations::EditSlide.new.call(by, id, "s3", rev: rev) do |slide|
        prompt = parts.delete(:prompt)
        Roost::Core::Reading.ok(slide.with(**parts, prompt: prompt ? slide.prompt.edited(prompt).value : slide.prompt))
      end
    end

    it "both have what they did, in different fields, however deep" do
      change(account, heading: "Hers", prompt: { "time_limit" => "30" })
      expect(change(rowe, notes: "His",
prompt: { "option_ids" => %w[o1 o2 o3 o4], "option_texts" => ["Crane", "Swallow", "Reed bunting", "Cuckoo"] })).to be_ok
      expect(change(account, rev: 2,
prompt: { "option_ids" => %w[o1 o2 o3 o4], "option_texts" => ["Grey heron", "Swift", "Reed bunting", "Cuckoo"] })).to be_ok
      slide = lessons.slide(id, "s3")
      expect([slide.heading, slide.notes, slide.prompt.time_limit, slide.prompt.options.map(&:text)])
        .to eq(["Hers", "His", 30, ["Crane", "Swift", "Reed bunting", "Cuckoo"]])
    end

    it "go on with what they see while they have changed nothing" do
      change(account, text: "Hers")
      expect(change(rowe).value.slide.rev).to eq(1)
      expect(change(rowe, text: "His").reason).to start_with("Ms Falk changed the same meanwhile.")
    end

    it "are told of a colleague, though their own window has changed something else meanwhile" do
      change(account, text: "Hers")
      change(rowe, rev: 2, notes: "His own, in the other window")
      expect(change(rowe, text: "His").reason).to start_with("Ms Falk changed the same meanwhile.")
      expect(change(rowe, rev: 2, notes: "In this window").reason).to start_with("Another window of yours changed the same")
    end

    it "are told of each other in the same field; the rest is saved, and one says whose stands" do
      change(account, heading: "Hers")
      expect(change(rowe, heading: "His", notes: "Also his").reason).to start_with("Ms Falk changed the same meanwhile.")
      slide = lessons.slide(id, "s3")
      expect([slide.heading, slide.notes]).to eq(["Hers", "Also his"])
      expect(change(rowe, heading: "Hers", text: "His")).to be_ok # the same twice is no clash
    end

    it "are told by name who has changed the order since, when their own step can't be taken back" do
      add = ->(by, name) { Roost::Operations::ChangeLesson.new.call(by, id) { |lesson| lesson.adding([slide(name)], after: nil) } }
      add.call(account, "n1")
      add.call(rowe, "n2")
      expect(Roost::Operations::UndoLesson.new.call(account, id).reason).to start_with("Mr Rowe has changed this since.")
      expect(Roost::Operations::UndoLesson.new.call(rowe, id)).to be_ok
      expect(Roost::Operations::UndoLesson.new.call(account, id)).to be_ok
    end

    it "go on with other fields while a clash stands, and undo nothing of the other's when one keeps one's own" do
      clash = lambda do |beside, mine: false, **parts|
        Roost::Operations::EditSlide.new.call(rowe, id, "s3", rev: 1, beside: beside, mine_stands: mine) do |slide|
          Roost::Core::Reading.ok(slide.with(**parts))
        end
      end
      change(account, heading: "Hers", text: "Also hers")
      beside = clash.call({}, heading: "His", notes: "One").value.beside
      beside = clash.call(beside, heading: "His", notes: "One, two").value.beside
      expect(lessons.slide(id, "s3").notes).to eq("One, two")
      expect(clash.call(beside, mine: true, heading: "His", notes: "One, two")).to be_ok
      slide = lessons.slide(id, "s3")
      expect([slide.heading, slide.text, slide.notes]).to eq(["His", "Also hers", "One, two"])
    end
  end

  it "gives a slide that came back by undo a revision nobody has seen" do
    edit("s1", rev: 1, heading: "One")
    Roost::Operations::UndoLesson.new.call(account, id)
    edit("s1", rev: lessons.find(account, id).lesson.slide("s1").rev, heading: "Other")
    expect(edit("s1", rev: 2, heading: "From a window that still shows One")).not_to be_ok
    expect(heading).to eq("Other")
  end

  it "saves nothing when nothing changed" do
    edit("s1", rev: 1, heading: "Dusk over the marsh")
    expect(lessons.find(account, id).revision).to eq(1)
  end

  it "does not know another teacher's lesson" do
    other = teacher(email: "rowe@heronsgate.example")
    expect(edit("s1", rev: 1, heading: "Mine now", by: other)).to be_nil
    expect(lessons.find(other, id)).to be_nil
    expect(lessons.mark_deleted(other, id, true)).to be(false)
  end

  describe "keeping a picture" do
    def keep(bytes, name = "bird.png") = Roost::Operations::KeepPicture.new.call(account, StringIO.new(bytes), name)

    # A picture that no earlier run can have stored already.
    let(:noise) do
      Vips::Image.new_from_array(Array.new(64) { Array.new(64) { rand(256) } }).cast(:uchar).write_to_buffer(".png")
    end
    let(:png) { Vips::Image.black(40, 30, bands: 3).write_to_buffer(".png") }

    it "re-encodes a photograph, shrinks a large one, and stores the same bytes once" do
      expect(keep(png).value.to_h).to include(width: 40, height: 30)
      expect(keep(png).value.file).to eq(keep(png).value.file)
      expect(keep(Vips::Image.black(4000, 1000).write_to_buffer(".png")).value.width).to eq(2000)
      expect(database[:media].count).to eq(2)
    end

    it "are taken as phones make them: HEIC and AVIF" do
      photograph = Vips::Image.new_from_buffer(Photographs.jpeg(1), "").resize(0.2)
      kept = { "heic" => :hevc, "avif" => :av1 }.map do |extension, compression|
        bytes = photograph.heifsave_buffer(compression: compression)
        Roost::Operations::KeepPicture.new.call(account, StringIO.new(bytes), "bird.#{extension}")
      end
      expect(kept.map { |each| [each.ok?, each.value&.width, each.value&.file.to_s[/\w+\z/]] })
        .to eq([[true, photograph.width, "jpg"]] * 2)
    end

    it "refuses an executable called a picture, a damaged one, and one of too many pixels" do
      expect(keep("\x7FELF#{"x" * 400}").reason)
        .to eq("“bird.png” is not a picture we can show. Use PNG, JPEG, WebP, HEIC, GIF or SVG.")
      expect(keep(png[0, 60]).reason).to eq("“bird.png” is damaged or not a picture. Export it again and retry.")
      huge = Vips::Image.black(9000, 9000).write_to_buffer(".png", compression: 9)
      expect(keep(huge).reason).to eq("“bird.png” has too many pixels. Make it smaller and try again.")
      expect(keep("x" * ((10 * 1024 * 1024) + 1)).reason).to eq("“bird.png” is larger than 10 MB. Make it smaller and try again.")
      expect(database[:media].count).to eq(0)
    end

    it "refuses a picture of 30,000 by 30,000 pixels by its head, without unpacking it" do
      head = "IHDR#{[30_000, 30_000].pack("NN")}\x08\x02\x00\x00\x00".b
      parts = [[13].pack("N"), head, [Zlib.crc32(head)].pack("N"), [0].pack("N"), "IDAT".b, [Zlib.crc32("IDAT")].pack("N")]
      bomb = ["\x89PNG\r\n\x1A\n".b, *parts].join
      expect(keep(bomb).reason).to eq("“bird.png” has too many pixels. Make it smaller and try again.")
    end

    it "leaves nothing half stored when the disk is full, and takes the picture once there is room" do
      script = 'trap(:XFSZ, "IGNORE"); require "roost"; ' \
               "print Roost::Operations::KeepPicture.new.call(#{account}, $stdin, 'bird.png').reason"
      said, = Open3.capture2("ruby", "-Ilib", "-e", script, stdin_data: noise, binmode: true, rlimit_fsize: 64)
      expect(said.force_encoding("UTF-8")).to start_with("“bird.png” can't be stored: the disk is full.")
      kept = keep(noise).value
      expect(Vips::Image.new_from_file(Roost::Store::Media.new.find(kept.file).first).width).to eq(64)
    end

    it "cleans a drawing of whatever could run or load" do
      svg = <<~SVG
        <svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 80 60" onload="alert(1)">
          <script>alert(1)</script><style>@import url(http://x.example)</style>
          <foreignObject><body xmlns="http://www.w3.org/1999/xhtml">x</body></foreignObject>
          <a xlink:href="javascript:alert(1)"><rect width="9" height="9"/></a>
          <image href="http://x.example/a.png"/><use xlink:href="http://x.example/#a"/>
          <rect id="kept" width="10" height="10" fill="url(http://x.example)" style="fill:red" onclick="alert(1)"/>
          <circle r="4" fill="url(#kept)"/>
        </svg>
      SVG
      picture = keep(svg, "drawing.svg").value
      cleaned = File.read(Roost::Store::Media.new.find(picture.file).first)
      expect(cleaned).to include('id="kept"', 'fill="url(#kept)"')
      expect(cleaned).not_to match(%r{script|alert|http://x|foreignObject|style|onclick|image})
      expect(picture.to_h).to include(width: 80, height: 60)
    end

    it "refuses a drawing with entities that would grow without end" do
      entities = { a: "a" * 10, b: "&a;" * 50, c: "&b;" * 50, d: "&c;" * 50 }
      bomb = "<!DOCTYPE svg [#{entities.map { |name, text| "<!ENTITY #{name} \"#{text}\">" }.join}]>" \
             "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 9 9\"><text>&d;</text></svg>"
      reading = keep(bomb, "bomb.svg")
      stored = reading.ok? ? File.size(Roost::Store::Media.new.find(reading.value.file).first) : 0
      expect(stored).to be < 2000
    end
  end
end

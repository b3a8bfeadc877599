# frozen_string_literal: true

require "tempfile"

RSpec.describe "Bringing a file of slides in" do
  let(:account) { teacher }
  let(:id) { kept_lesson(account) }
  let(:pages) { (1..4).map { |number| "Page #{number}: birds that leave" } }

  def lesson = Roost::Store::Lessons.new.find(account, id).lesson

  def import(bytes, name: "last year.pdf", after: "s2")
    Tempfile.create("import", binmode: true) do |file|
      file.write(bytes)
      file.rewind
      Roost::Operations::ImportFile.new.call(account, id, file, name, after: after)
    end
  end

  def carry_on(import_id) = Roost::Operations::BringPagesIn.new.call(import_id)

  def found(import_id) = Roost::Store::Imports.new.find(import_id)

  it "makes a slide of each page, in order and in place, with the page's own text to search and to hear" do
    import_id = import(Pdfs.make(pages)).value
    expect(database[:que_jobs].select_map(:args).map(&:to_a)).to eq([[import_id]])
    carry_on(import_id)
    expect(lesson.slides.map(&:name)).to eq(["Dusk over the marsh", "Have you seen one?", *pages, "Why do swallows leave?",
                                             "How do they know the way?", "Sketch a wing"])
    page = lesson.slides[2]
    expect([page.layout, page.picture.alt, page.picture.width]).to eq(["full", pages.first, 1600])
    expect(found(import_id).to_h).to include(state: "done", done: 4)
    expect(Roost::Store::Catalogue.new.find(account, query: "birds that leave").length).to eq(1)
    expect(Dir[Roost.settings.var("imports", "*")].grep(/#{found(import_id).file}/)).to be_empty
  end

  it "takes the place of the blank slide that a new lesson begins with, not of one that something is on" do
    blank = Roost::Core::Lesson.new(title: "New", slides: [slide("s1", heading: "")])
    written = Roost::Core::Lesson.new(title: "New", slides: [slide("s1", heading: "Why do they leave?")])
    names = [blank, written].map do |fresh|
      lesson_id = kept_lesson(account, fresh)
      Tempfile.create("import", binmode: true) do |file|
        file.write(Pdfs.make(pages.first(2)))
        file.rewind
        carry_on(Roost::Operations::ImportFile.new.call(account, lesson_id, file, "a.pdf", after: "s1").value)
      end
      Roost::Store::Lessons.new.find(account, lesson_id).lesson.slides.map(&:name)
    end
    expect(names).to eq([pages.first(2), ["Why do they leave?", *pages.first(2)]])
  end

  it "stops with a word where the lesson is full" do
    slides = (1..Roost::Core::Lesson::SLIDE_LIMIT).map { |place| slide("s#{place}") }
    full = Roost::Core::Lesson.new(title: "Full", slides: slides)
    import_id = import(Pdfs.make(pages)).value
    Roost::Operations::ChangeLesson.new.call(account, id) { Roost::Core::Reading.ok(full) }
    carry_on(import_id)
    expect([found(import_id).state, found(import_id).reason]).to match(["failed", /slides is the most a lesson can have/])
  end

  it "goes on at the page it was at when the process dies, and brings no page in twice" do
    import_id = import(Pdfs.make(pages)).value
    calls = 0
    allow_any_instance_of(Roost::Exchange::Pdf).to receive(:text).and_wrap_original do |text, number|
      raise SignalException, "KILL" if (calls += 1) == 3

      text.call(number)
    end
    expect { carry_on(import_id) }.to raise_error(SignalException)
    expect([found(import_id).done, lesson.slides.length]).to eq([2, 7])
    2.times { carry_on(import_id) }
    expect(lesson.slides.map(&:name)[2, 4]).to eq(pages)
    expect(lesson.slides.length).to eq(9)
  end

  it "lets a question be asked on a page without typing it again" do
    carry_on(import(Pdfs.make(["Which stay? A heron B swallow"])).value)
    page = lesson.slides[2]
    prompt = Roost::Core::Kinds::Choice::Prompt.new(id: "p", settings: Roost::Core::Kinds::Choice::Prompt.fitting(page))
    expect(page.with(prompt: prompt).problems).to eq(["no key yet"])
  end

  it "refuses what can't be used, in one sentence each, and leaves the lesson as it was" do
    before = lesson
    { Pdfs.make(pages)[0, 300] => "“last year.pdf” is damaged or not a PDF. Save it again and retry.",
      File.binread("spec/fixtures/locked.pdf") =>
        "“last year.pdf” is locked with a password. Save a copy without one and add that.",
      Pdfs.make(["x"] * 300) => "“last year.pdf” has 300 pages; 100 is the most. Split it and add the parts.",
      "just words" => "“last year.pdf” is no PDF or zip of pictures. Save your slides as PDF and add that.",
      "%PDF-1.4\n#{"x" * (50 * 1024 * 1024)}" => "“last year.pdf” is larger than 50 MB. Make it smaller, or add it in parts." }
      .each { |bytes, reason| expect(import(bytes).reason).to eq(reason) }
    expect([lesson, database[:imports].count, database[:que_jobs].count]).to eq([before, 0, 0])
  end

  it "stops where the teacher stops it, and gives up with a word when it can't go on" do
    import_id = import(Pdfs.make(pages)).value
    Roost::Store::Imports.new.update(import_id, state: "stopped")
    carry_on(import_id)
    expect(lesson.slides.length).to eq(5)
    other = import(Pdfs.make(pages)).value
    allow_any_instance_of(Roost::Exchange::Pdf).to receive(:picture).and_return(nil)
    carry_on(other)
    expect(found(other).to_h).to include(state: "failed", reason: "Page 1 could not be drawn; the pages before it are here.")
  end

  describe "a zip of pictures" do
    def zipped(entries)
      Zip::OutputStream.write_buffer do |zip|
        entries.each do |name, bytes|
          zip.put_next_entry(name)
          zip.write(bytes)
        end
      end.string
    end

    let(:photograph) { Vips::Image.black(40, 30, bands: 3).write_to_buffer(".png") }

    it "makes a slide of each, in the order of their numbers, and leaves what is none" do
      import_id = import(zipped("birds/bird 10.png" => photograph, "birds/bird 2.png" => photograph, "notes.txt" => "words",
                                "__MACOSX/birds/._bird 2.png" => "x"), name: "birds.zip", after: "s1").value
      carry_on(import_id)
      expect(lesson.slides[1..2].map { |slide| [slide.name, slide.layout, slide.picture.width] })
        .to eq([["bird 2", "full", 40], ["bird 10", "full", 40]])
      expect(found(import_id).state).to eq("done")
    end

    it "says what is wrong with it" do
      expect(import(zipped("notes.txt" => "words"), name: "a.zip").reason).to eq("“a.zip” has no pictures in it.")
      full = zipped((0..Roost::Exchange::PictureZip::MOST_ENTRIES).to_h { |number| ["#{number}.txt", ""] })
      allow(Zip::File).to receive(:open).and_raise("what it holds was read")
      expect(import(full, name: "a.zip").reason).to eq("“a.zip” has too many files in it. Make one of the pictures alone.")
      allow(Zip::File).to receive(:open).and_call_original
      expect(import("PK\x03\x04#{"x" * 300}",
                    name: "a.zip").reason).to eq("“a.zip” is damaged or not a zip. Make it again and retry.")
      import_id = import(zipped("bird.png" => "no picture"), name: "a.zip").value
      carry_on(import_id)
      expect([found(import_id).state, found(import_id).reason]).to match(["failed", /could not be drawn/])
    end
  end

  describe "the job" do
    # The job as que runs it, from its row, in this process.
    def run_job
      row = Que.execute("SELECT * FROM que_jobs ORDER BY id LIMIT 1").first
      job = Roost::Jobs::ImportPages.new(row)
      job.tap(&:_run)
    end

    it "brings the pages in and is done" do
      import_id = import(Pdfs.make(pages)).value
      run_job
      expect(found(import_id).state).to eq("done")
      expect(database[:que_jobs].where(finished_at: nil).count).to eq(0)
      expect(lesson.slides.count { |slide| slide.searchable.include?("birds that leave") }).to eq(4)
    end

    it "is tried again when something breaks, and in the end tells the teacher" do
      import_id = import(Pdfs.make(pages)).value
      allow_any_instance_of(Roost::Exchange::Pdf).to receive(:text).and_raise(Errno::EIO)
      3.times { run_job }
      expect(found(import_id).state).to eq("coming")
      database[:que_jobs].update(error_count: 4)
      run_job
      expect(found(import_id).to_h).to include(state: "failed", reason: Roost::Jobs::ImportPages::GIVEN_UP)
    end
  end

  describe "slides of an office program" do
    let(:slides) { File.binread("spec/fixtures/two-slides.pptx") }

    it "says what to do instead where LibreOffice is missing" do
      allow(Roost::Exchange::Presentation).to receive(:possible?).and_return(false)
      expect(import(slides, name: "a.pptx").reason)
        .to eq("“a.pptx” needs LibreOffice on the server, which isn't there. Save it as PDF and add that.")
    end

    it "come in like a PDF where it is there", if: Roost::Exchange::Presentation.possible? do
      import_id = import(slides, name: "a.pptx").value
      carry_on(import_id)
      expect(lesson.slides.map(&:name)[2, 2]).to eq(["Birds of the marsh", "Who stays all winter"])
      expect(found(import_id).to_h).to include(state: "done", pages: 2)
    end

    it "bring their notes and their whole titles along" do
      allow(Roost::Exchange::Presentation).to receive(:possible?).and_return(true)
      allow(Roost::Exchange::Presentation).to receive(:outline).and_return([["Birds of the marsh at dusk", "Wait."], ["", ""]])
      allow(Roost::Exchange::Presentation).to receive(:to_pdf) do |path|
        made = "#{path.delete_suffix(".pptx")}.pdf"
        File.binwrite(made, Pdfs.make(["Birds of the marsh", "Who stays"]))
        Roost::Core::Reading.ok(made)
      end
      carry_on(import(slides, name: "a.pptx").value)
      expect(lesson.slides[2, 2].map { |slide| [slide.name, slide.notes] })
        .to eq([["Birds of the marsh at dusk", "Wait."], ["Who stays", ""]])
    end

    it "are told apart where they are locked" do
      bytes = "\xD0\xCF\x11\xE0".b + "EncryptedPackage".encode("UTF-16LE").b
      expect(import(bytes, name: "a.pptx").reason).to eq("“a.pptx” #{Roost::Exchange::Presentation::LOCKED}")
    end

    it "fail with a word when nothing comes of them" do
      allow(Roost::Exchange::Presentation).to receive(:possible?).and_return(true)
      allow(Roost::Exchange::Confined).to receive(:run).and_return(nil)
      import_id = import(slides, name: "a.pptx").value
      carry_on(import_id)
      expect(found(import_id).reason).to eq("“a.pptx” could not be read as slides. Save it as PDF and add that.")
      expect(lesson.slides.length).to eq(5)
    end
  end

  describe Roost::Exchange::Confined do
    it "ends a program that takes too long or too much memory, and the page with it" do
      expect(described_class.run("sh", "-c", "while :; do :; done", seconds: 1).success).to be(false)
      hungry = described_class.run("ruby", "-e", "x = 'a' * 900_000_000; print x.length", seconds: 5, memory: 400 * 1024 * 1024)
      expect([hungry.success, hungry.output]).to eq([false, ""])
    end
  end
end

RSpec.describe Roost::Operations::KeepClip do
  let(:account) { teacher }
  let(:wave) do
    "RIFF$\x00\x00\x00WAVEfmt \x10\x00\x00\x00\x01\x00\x01\x00\x40\x1f\x00\x00\x80>\x00\x00\x02\x00\x10\x00data\x00\x00\x00\x00".b
  end
  let(:mp4) { "\x00\x00\x00\x18ftypmp42\x00\x00\x00\x00mp42isom".b }

  def keep(kind, bytes, name = "a file") = described_class.new.call(account, kind, StringIO.new(bytes), name)

  it "keeps sound and video by what they are, whatever they are called" do
    expect(keep("sound", wave).value.file).to end_with(".wav")
    expect(keep("video", mp4).value.file).to end_with(".mp4")
    expect(Roost::Store::Media.new.find(keep("spoken", mp4).value.file).last).to eq("audio/mp4")
  end

  it "refuses what browsers don't play, with the reason, and takes an M4A as sound only" do
    track = ->(coding) { "trak#{coding}".b.then { |inside| [inside.bytesize + 8].pack("N") + "moov".b + inside } }
    film = ->(coding) { mp4 + "\x00\x00\x00\x10mdat12345678".b + track.call(coding) }
    expect(keep("video", film.call("avc1"))).to be_ok
    expect(keep("video", film.call("hvc1"), "film.mp4").reason).to start_with("“film.mp4” is a video in H.265 (HEVC)")
    expect(keep("video", "#{mp4}\x00\x00\x00\x0Cmdathvc1".b)).to be_ok # what is filmed may spell anything
    ebml = ->(type) { "\x1A\x45\xDF\xA3\x9F\x42\x82".b + (0x80 + type.length).chr.b + type.b + ("\x00".b * 64) }
    expect(keep("video", ebml.call("webm")).value.file).to end_with(".webm")
    expect(keep("video", ebml.call("matroska"), "film.mkv").reason).to start_with("“film.mkv” is a Matroska video (MKV)")
    m4a = "\x00\x00\x00\x18ftypM4A \x00\x00\x00\x00M4A isom".b
    expect(keep("sound", m4a).value.file).to end_with(".m4a")
    expect(keep("video", m4a, "song.m4a").reason).to eq("“song.m4a” is a sound, not a video. Add it under Sound.")
  end

  it "refuses a video that is text, a picture as sound, and captions that are none" do
    expect(keep("video", "just words " * 40, "film.mp4").reason).to eq("“film.mp4” is not a video we can play. Use MP4 or WebM.")
    expect(keep("sound", Vips::Image.black(8, 8).write_to_buffer(".png")).reason).to include("is not a sound we can play.")
    expect(described_class.new.captions(account, StringIO.new("1\n00:00 --> 00:02\nHello"), "a.srt").reason)
      .to include("Captions are WebVTT")
    good = "WEBVTT\n\n00:00.000 --> 00:02.000\nHello\n"
    expect(described_class.new.captions(account, StringIO.new(good), "a.vtt").value).to end_with(".vtt")
  end
end

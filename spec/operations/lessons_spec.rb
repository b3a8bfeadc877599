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
    expect(edit("s1", rev: 1, heading: "Second").reason).to start_with("Another window of yours changed this slide meanwhile.")
    expect(heading).to eq("First")
    expect(edit("s2", rev: 1, heading: "Another slide")).to be_ok
  end

  it "undoes step by step, further back each time, and keeps going after a new edit" do
    edit("s1", rev: 1, heading: "One")
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

    it "refuses an executable called a picture, a damaged one, and one of too many pixels" do
      expect(keep("\x7FELF#{"x" * 400}").reason)
        .to eq("“bird.png” is not a picture we can show. Use PNG, JPEG, WebP, GIF or SVG.")
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

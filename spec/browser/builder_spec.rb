# frozen_string_literal: true

require "tempfile"

RSpec.describe "Preparing a lesson in the browser" do
  let(:page) { sign_in_window(at: "/lessons") }

  let!(:account) { teacher }

  def lesson = Roost::Store::Lessons.new.of(account).first.lesson

  # Waits for something to be true of what is kept.
  it "makes a lesson with each kind of question, saved as it goes, and undoes" do
    page.fill_in "Title of a new lesson", with: "Nests"
    page.click_button "Create lesson"
    page.fill_in "Heading", with: "Whose nest is this?"
    expect(page).to have_css(".seat-frame .slide-heading", text: "Whose nest is this?")
    page.click_button "Choice"
    expect(page).to have_css(".problems", text: "Fewer than two options")
    page.fill_in "Option A", with: "Reed warbler"
    page.fill_in "Option B", with: "Grey heron"
    %w[D C].each do |letter|
      page.find_button("Remove option #{letter}").click
      expect(page).to have_no_field("Option #{letter}")
    end
    page.first(".key-tick").click
    page.fill_in "Time limit", with: "20"
    page.find("summary", text: "More", exact_text: true).click
    page.click_button "Make it a game round"
    expect(page).to have_css(".section-head", text: "Game round")
    eventually { lesson.game_slides.any? }
    expect(page).to have_css(".thumb .tag", text: "choice · 20 s")
    expect(lesson.slides.first.prompt.options.map(&:text)).to eq(["Reed warbler", "Grey heron"])
    expect_accessible(page)

    page.click_button "Add a slide"
    expect(page).to have_css(".thumb", count: 2)
    page.click_button "Sketch"
    expect(page).to have_css(".seat-frame sketch-pad")
    page.click_button "Writing"
    page.choose "One line"
    eventually { lesson.slides.last.prompt.line? }
    page.click_button "Undo"
    eventually { !lesson.slides.last.prompt.line? }
    page.click_button "Move up"
    expect(page).to have_css(".section-head + .slide-row .thumb[aria-current]")
    page.find("#chosen").click_button "Delete"
    expect(page).to have_css(".note", text: "Deleted.")
    page.find(".note").click_button "Undo"
    expect(page).to have_css(".thumb", count: 2)
  end

  it "makes one lesson of two clicks" do
    page.fill_in "Title of a new lesson", with: "Nests"
    page.find_button("Create lesson")
    page.execute_script("const button = document.querySelector('form.inline button'); button.click(); button.click();")
    expect(page).to have_css(".builder")
    sleep 0.5
    expect(Roost::Store::Lessons.new.of(account).length).to eq(1)
  end

  it "takes in a picture and says what is wrong with one that isn't" do
    kept_lesson(account)
    page.click_link "Edit"
    Tempfile.create(["bird", ".png"]) do |file|
      file.write(Vips::Image.black(60, 40, bands: 3).write_to_buffer(".png"))
      file.flush
      page.attach_file "pictures[]", file.path
      expect(page).to have_css(".seat-frame .slide-picture")
    end
    Tempfile.create(["virus", ".png"]) do |file|
      file.write("MZ#{"x" * 300}")
      file.flush
      page.attach_file "pictures[]", file.path
      expect(page).to have_css(".refusal", text: "is not a picture we can show")
    end
    expect(page).to have_css(".seat-frame .slide-picture")
  end

  describe "photographs of a phone" do
    # Three of them, twelve megapixels each and as hard to pack as a real one: more at once than a slide takes.
    def photographs
      Dir.mktmpdir do |folder|
        paths = Array.new(3) do |number|
          noise = Vips::Image.gaussnoise(4000, 3000, mean: 120 + (number * 20), sigma: 8).cast(:uchar)
          File.join(folder, "marsh #{number}.jpg").tap { |path| noise.bandjoin([noise, noise]).write_to_file(path, Q: 92) }
        end
        expect(paths.sum { |path| File.size(path) }).to be > 12_000_000
        yield paths
      end
    end

    it "are made smaller before they are sent, onto a slide and in bulk, and all of them come" do
      id = kept_lesson(account)
      photographs do |paths|
        page.click_link "Edit"
        # Files are chosen by hand, when the page has long been there.
        eventually { page.evaluate_script("document.readyState") == "complete" && page.has_field?("pictures[]", visible: :all) }
        page.attach_file "pictures[]", paths
        expect(page).to have_css(".picture-row", count: 3, wait: 60)
        page.visit "/lessons/#{id}/add"
        page.attach_file "Pictures", paths
        expect(page).to have_css(".note", text: "3 slides added.", wait: 60)
      end
      lesson = Roost::Store::Lessons.new.find(account, id).lesson
      expect(lesson.slides.last(3).map(&:title)).to eq(["marsh 0", "marsh 1", "marsh 2"])
      expect(lesson.slides.flat_map(&:pictures).map { |picture| [picture.width, picture.height] }.uniq).to eq([[2000, 1500]])
    end

    it "that are too large, or no pictures, are told of where one stands, and the others come" do
      kept_lesson(account)
      page.click_link "Edit"
      Dir.mktmpdir do |folder|
        good, bad, large = %w[good.png bad.png large.vtt].map { |name| File.join(folder, name) }
        Vips::Image.black(60, 40, bands: 3).write_to_file(good)
        File.write(bad, "MZ#{"x" * 300}")
        File.write(large, "x" * (31 * 1024 * 1024))
        page.attach_file "pictures[]", [good, bad]
        expect(page).to have_css(".picture-row", count: 1)
        expect(page).to have_css(".upload-state .refusal", text: "“bad.png” is not a picture we can show.")
        page.all("input[name=file]").first.set(large)
        expect(page).to have_css(".upload-state .refusal", text: "“large.vtt” is larger than 30 MB.")
      end
    end
  end

  it "gives the sides of a pair pictures, a file of one's own and a drawing of the library" do
    rows = [%w[Heron fish], %w[Robin worms]].map.with_index(1) do |(left, right), place|
      { "id" => "m#{place}", "left" => left, "right" => right }
    end
    match = Roost::Core::Kinds::Match::Prompt.new(id: "p1", settings: { "rows" => rows })
    kept_lesson(account, Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: match)]))
    page.click_link "Edit"
    page.find("summary", text: /Picture\s+for pair 1/).click
    Tempfile.create(["bird", ".png"]) do |file|
      file.write(Vips::Image.black(60, 40, bands: 3).write_to_buffer(".png"))
      file.flush
      page.attach_file "Picture for left of pair 1", file.path, make_visible: true
      expect(page).to have_css(".seat-frame .option-pictured img", count: 1)
    end
    page.click_button "+ drawing"
    page.find("#library").first("button[name=drawing]").click
    expect(page).to have_css(".seat-frame .option-pictured img", count: 2)
    expect(page).to have_no_css("summary", text: /Picture\s+for pair 1/)
    expect(lesson.slides.first.prompt.lefts.first.picture.width).to eq(60)
    expect_accessible(page)
    page.find_button("Remove picture of left of pair 1").click
    expect(page).to have_css(".seat-frame .option-pictured img", count: 1)
    expect(complaints(page)).to be_empty
  end

  describe "on the slide itself" do
    let(:png) { [Vips::Image.black(60, 40, bands: 3).write_to_buffer(".png")].pack("m0") }

    before do
      kept_lesson(account, Roost::Core::Lesson.new(title: "Marsh", slides: [slide("s1", prompt: choice(texts: %w[Heron Owl]))]))
      page.click_link "Edit"
    end

    # A file that comes with an event, as by the mouse or the clipboard.
    def bring(event, holder)
      page.execute_script(<<~JS, page.find(".as-seat"), png)
        const bytes = Uint8Array.from(atob(arguments[1]), (letter) => letter.charCodeAt(0));
        const transfer = new DataTransfer();
        transfer.items.add(new File([bytes], "reed.png", { type: "image/png" }));
        arguments[0].dispatchEvent(new #{event}, { bubbles: true, cancelable: true, #{holder}: transfer }));
      JS
    end

    it "is written where it stands, line after line by Enter, and looks as students get it once one has left it" do
      page.find_field("Text").send_keys("Look **closely**.")
      page.find_field("Heading").click
      expect(page).to have_css(".write .written strong", text: "closely")
      page.find_field("Option B").send_keys(:enter)
      expect(page).to have_css("input:focus[aria-label='Option C']")
      page.send_keys("Swallow")
      eventually { lesson.slides.first.prompt.options.map(&:text) == %w[Heron Owl Swallow] }
      expect(lesson.slides.first.text).to eq("Look **closely**.")
      page.send_keys(%i[shift tab], :enter)
      expect(lesson.slides.first.prompt.options.length).to eq(3)
    end

    it "takes a picture that is dropped or pasted onto it" do
      bring('DragEvent("drop"', "dataTransfer")
      expect(page).to have_css(".seat-frame .slide-picture")
      eventually { lesson.slides.length == 1 && lesson.slides.first.pictures.length == 1 }
      page.find_button("Remove picture 1").click
      expect(page).to have_no_css(".seat-frame .slide-picture")
      bring('ClipboardEvent("paste"', "clipboardData")
      expect(page).to have_css(".seat-frame .slide-picture")
    end

    it "keeps focus: on the heading of a slide that is added, on Undo that is pressed" do
      page.click_button "Add a slide"
      expect(page).to have_css("textarea:focus[name=heading]")
      page.send_keys("Owls at night")
      eventually { lesson.slides.last.heading == "Owls at night" }
      expect(page.current_url).to end_with("slide=#{lesson.slides.last.id}")
      page.click_button "Undo"
      eventually { lesson.slides.last.heading.empty? }
      expect(page).to have_css("button:focus", exact_text: "Undo")
    end

    it "keeps what is being typed, and its place, when a colleague's change arrives" do
      other = sign_in_window(:other, at: "/lessons")
      other.click_link "Edit"
      other.find_field("Text").send_keys("Hers")
      page.find_field("Heading").send_keys(" at")
      eventually { lesson.slides.first.text == "Hers" && lesson.slides.first.heading.end_with?(" at") }
      page.send_keys(:left, " night")
      expect(page).to have_css(".written", text: "Hers")
      eventually { lesson.slides.first.heading == "Birds of the marsh a nightt" }
      expect(page.find_field("Heading").value).to eq("Birds of the marsh a nightt")
      expect(page).to have_css("textarea:focus[name=heading]")
    end
  end

  it "never lets two windows overwrite each other, and keeps what was typed" do
    kept_lesson(account)
    page.click_link "Edit"
    other = sign_in_window(:other, at: "/lessons")
    other.click_link "Edit"
    page.fill_in "Heading", with: "First"
    eventually { lesson.slides.first.heading == "First" }
    other.fill_in "Heading", with: "Second"
    expect(other).to have_css(".refusal", text: "Another window of yours changed the same meanwhile.")
    expect(other.find_field("Heading").value).to eq("Second")
    expect(lesson.slides.first.heading).to eq("First")
  end

  it "takes a kind chosen in mid-typing without mistaking itself for somebody else" do
    kept_lesson(account)
    page.click_link "Edit"
    page.find_field("Heading").send_keys(" tonight")
    page.click_button "Writing"
    eventually { lesson.slides.first.prompt }
    expect(lesson.slides.first.heading).to end_with("tonight")
    page.find_field("Heading").send_keys(" again")
    page.click_button "Nothing"
    eventually { lesson.slides.first.prompt.nil? && lesson.slides.first.heading.end_with?("tonight again") }
    expect(page).to have_no_css(".refusal")
  end

  it "puts slides into order by dragging, and copies one" do
    kept_lesson(account)
    page.click_link "Edit"
    second, third = page.all(".thumb").values_at(1, 2)
    page.driver.browser.action.click_and_hold(second.native).move_by(0, 20)
        .move_to(third.native, 0, 20).move_by(0, 4).release.perform
    eventually { lesson.slides.map(&:id).first(3) == %w[s1 s3 s2] }
    expect(page).to have_css(".thumb[aria-current]", text: "Dusk over the marsh")
    page.find("#chosen").click_button "Copy"
    expect(page).to have_css(".thumb", text: "Dusk over the marsh", count: 2)
    page.click_button "Undo"
    expect(page).to have_css(".thumb", text: "Dusk over the marsh", count: 1)
  end

  it "keeps up with fast typing in several fields" do
    kept_lesson(account)
    page.click_link "Edit"
    page.find_field("Heading").send_keys(" and its many birds")
    page.find_field("Notes for you only").send_keys("Let them look first.")
    page.find_field("Text").send_keys(" Then write.")
    eventually { lesson.slides.first.text.end_with?("Then write.") }
    expect(lesson.slides.first.heading).to end_with("and its many birds")
    expect(lesson.slides.first.notes).to eq("Let them look first.")
    expect(page).to have_no_css(".refusal")
  end
end

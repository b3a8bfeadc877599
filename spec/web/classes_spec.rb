# frozen_string_literal: true

RSpec.describe "The pages of classes" do
  def page = Nokogiri::HTML(last_response.body)

  before do
    teacher
    sign_in
    get "/classes"
    post_form "/classes", name: "Year 7 Kestrel"
    follow_redirect!
  end

  def kestrel = database[:classes].max(:id)

  def rows = page.css("tbody tr").map { |row| row.css("th, td").map { |cell| cell.text.strip.squeeze(" ") } }

  # Presses the button under a list that was looked through.
  def keep_list(**changed)
    press("$='/students'", **changed)
    follow_redirect!
  end

  # Looks a list through and saves it.
  def bring(names)
    post_form "/classes/#{kestrel}/list", names: names
    keep_list
  end

  it "lead from a name to a list of students, each looked at before it is saved" do
    expect(page.at_css("h1").text).to eq("Add students")
    post_form "/classes/#{kestrel}/list", names: "Ada Lindqvist\nMarsh, Bo\n17"
    expect(rows.map(&:last)).to eq(["✓ will be added", "✓ will be added", "✗ A student needs a name."])
    keep_list
    expect(page.at_css("[role=status]").text).to eq("2 students added or changed.")
    expect(rows.map { |row| row[1, 2] }).to eq([["Ada Lindqvist", "Ada"], ["Bo Marsh", "Bo"]])
    get "/classes/#{kestrel}/students.csv"
    expect(last_response.body.lines[1]).to eq("Ada,Lindqvist,Ada,\"\",\"\",1,\"\"\n")
  end

  it "say of a list that can't be read what to do, and of a file by its name" do
    post_form "/classes/#{kestrel}/list", names: " "
    expect([last_response.status, page.at_css(".refusal, main").text]).to match([422, /There is no name in it./])
    file = Rack::Test::UploadedFile.new(StringIO.new("Question\nWhy?\n"), "text/csv", original_filename: "birds.csv")
    post_form "/classes/#{kestrel}/list", sheet: file
    expect(page.text).to include("“birds.csv” has no column “Name”")
  end

  it "bring a sheet in as it was looked through" do
    file = Rack::Test::UploadedFile.new(StringIO.new("Name,Group\nAda Lindqvist,Reed\n"), "text/csv", original_filename: "7k.csv")
    post_form "/classes/#{kestrel}/list", sheet: file
    keep_list
    expect(rows.map { |row| [row[1], row[4]] }).to eq([["Ada Lindqvist", "Reed"]])
  end

  it "take a student out, with a way back" do
    bring("Ada Lindqvist\nBo Marsh")
    get page.at_css("tbody a")["href"]
    post_form page.at_css("form[action$='/out']")["action"], out: "1"
    follow_redirect!
    expect(rows.map { |row| row[1] }).to eq(["Bo Marsh"])
    post_form page.at_css(".note form, form.note")["action"]
    follow_redirect!
    expect(rows.length).to eq(2)
  end

  it "keep what is written on a student's page, field by field" do
    bring("Ada Lindqvist")
    get page.at_css("tbody a")["href"]
    written = { given: "Ada Maria", family: "Lindquist", shown_name: "Ady", number: "0417", group: "Reed", time_factor: "1.5",
                notes: "Sits at the front" }
    press("*='/students/'][class~='is-form'", **written)
    follow_redirect!
    expect(page.at_css("[role=status]").text).to eq("Saved.")
    kept = page.at_css("form.is-form").css("[name]").to_h { |field| [field["name"], value_of(field).strip] }
    expect(kept.slice(*written.keys.map(&:to_s))).to eq(written.transform_keys(&:to_s))
  end

  it "move those chosen on into another class, where a namesake is somebody else if the teacher says so" do
    bring("Ada Lindqvist\nBo Marsh")
    post_form "/classes", name: "Year 8 Kestrel"
    get "/classes/#{kestrel - 1}"
    press("$='/move'", students: [page.at_css("input[name='students[]']")["value"]])
    follow_redirect!
    expect(rows.map { |row| row[1] }).to eq(["Ada Lindqvist"])
    post_form "/classes/#{kestrel}/list", names: "Bo Marsh"
    keep_list(apart: ["1"])
    expect(database[:students].where(name: "Bo Marsh").count).to eq(2)
  end

  it "bring classes out of the school's records: looked at, chosen, compared, saved; and give them out" do
    falk = ["Edda", "Falk", nil, nil, "falk@heronsgate.example"]
    file = roster(people: { "u1" => %w[Ada Lindqvist], "u9" => falk },
                  classes: { "c1" => ["Year 8 Avocet"], "c2" => ["Somebody's"] },
                  places: [%w[c1 u1], %w[c1 u9 teacher], %w[c2 u1]])
    get "/classes/roster"
    post_form "/classes/roster", package: Rack::Test::UploadedFile.new(file.path, "application/zip")
    expect(page.css("input[checked]").map { |field| field["value"] }).to eq(["c1"])
    press("='/classes/roster/compare'")
    expect(page.text).to include("Year 8 Avocet new class", "Ada Lindqvist ✓ will be added")
    press("='/classes/roster/keep'")
    follow_redirect!
    expect(page.css(".class-card h2").map(&:text)).to eq(["Year 7 Kestrel", "Year 8 Avocet"])
    get "/classes/roster.zip"
    expect([last_response.content_type, last_response.body[0, 2]]).to eq(["application/zip", "PK"])
    broken = StringIO.new("x")
    post_form "/classes/roster", package: Rack::Test::UploadedFile.new(broken, original_filename: "no.zip")
    expect(page.text).to include("“no.zip” could not be read as a OneRoster package")
  end

  it "are nobody else's" do
    bring("Ada Lindqvist")
    student = page.at_css("tbody a")["href"]
    teacher(email: "moss@heronsgate.example")
    clear_cookies
    sign_in("moss@heronsgate.example")
    paths = ["/classes/#{kestrel}", "/classes/#{kestrel}/add", "/classes/#{kestrel}/students.csv",
             "/classes/#{kestrel}/roster.zip", student]
    expect(paths.map { |path| get(path).status }.uniq).to eq([404])
    expect(%w[list students move archive delete restore code].map do |what|
      post_form("/classes/#{kestrel}/#{what}").status
    end.uniq).to eq([404])
  end

  describe "when a lesson is started for one" do
    let(:account) { database[:accounts].get(:id) }
    let(:lesson) { kept_lesson(account) }

    before { bring("Ada Lindqvist\nBo Marsh") }

    def start(**more)
      post_form "/lessons/#{lesson}/start", class_id: kestrel, names_shown: "1", **more
      Roost::Store::PastSessions.new.all_of(account).first
    end

    it "let each pick a name once, and tell the Desk who is missing" do
      session = start(entry: "list")
      get "/join/#{session.code}"
      expect(page.css(".pick input").map { |input| input["disabled"] }).to eq([nil, nil])
      post "/join/#{session.code}", "student" => page.at_css(".pick input")["value"]
      follow_redirect!
      expect(page.at_css(".seat-name").text).to include("Ada")
      get "/join/#{session.code}"
      expect(page.css(".pick label").map { |label| label.text.squeeze(" ").strip }).to eq(["Ada is here", "Bo"])
      get "/desk/#{session.id}"
      expect(page.at_css(".desk-missing").text.squeeze(" ")).to match(/1 of 2\s+not here yet:\s+Bo Marsh/)
    end

    it "let a pass in, from the front door, a card or the code of the lesson, whoever else guesses" do
      session = start(entry: "pass")
      pass = Roost::Operations::StudentPasses.new.of_class(account, kestrel).first.last
      post "/join", "code" => pass.downcase
      follow_redirect!
      expect([page.at_css("h1").text, page.at_css(".own-session strong").text]).to eq(["Ada", session.title])
      post page.at_css(".own-session")["action"], "session" => session.id.to_s
      follow_redirect!
      expect(page.at_css(".seat-name").text).to include("Ada")
      post "/join/#{session.code}", "pass" => pass
      expect(last_response.status).to eq(303)
      post "/join/#{session.code}", "pass" => "CDFGHJKMNPQR"
      expect(page.at_css("[role=alert]").text).to start_with("That pass isn't known here.")
      expect(Array.new(25) { get("/pass/CDFGHJKMNPQR").status }.uniq).to eq([404, 429])
      expect(page.text).to include("Look at your card, or ask your teacher for a new one.")
      expect(get("/pass/#{pass}").status).to eq(200)
    end

    it "have a page of their own with what is on, to which a code leads until there is a new one" do
      get "/classes/#{kestrel}"
      code = page.at_css(".class-code .code").text
      post "/join", "code" => code.downcase
      follow_redirect!
      expect([page.at_css("h1").text, page.at_css(".own-session")]).to eq(["Year 7 Kestrel", nil])
      session = start(entry: "list")
      get "/class/#{code.delete(" ")}"
      expect(page.at_css(".own-session a")["href"]).to eq("/join/#{session.code}")
      expect(page.text).not_to include("Ada", "Marsh")
      expect(get(page.at_css(".own-session a")["href"]).status).to eq(200)
      get "/classes/#{kestrel}"
      press("$='/code'")
      expect([get("/class/#{code.delete(" ")}").status, page.at_css("main").text]).to match([404, /That class code isn't known./])
    end

    it "let each choose a team, which the lobby and the Desk show, and which the teacher changes" do
      session = start(entry: "list", teams: "chosen", team_count: "2")
      get "/join/#{session.code}"
      teams = page.css("input[name=team]").map { |input| input["value"] }
      expect(page.css(".pick .team").map { |each| each.text.strip }).to eq(%w[Reed Sedge])
      press("='/join/#{session.code}'", student: page.at_css("input[name=student]")["value"], team: nil)
      expect(page.at_css("[role=alert]").text).to eq("Choose your team.")
      press("='/join/#{session.code}'", student: page.at_css("input[name=student]")["value"], team: teams.last)
      follow_redirect!
      expect(page.at_css("main .team").text.strip).to eq("Sedge")
      screen = Nokogiri::HTML(get("/screen/#{session.screen_key}").body)
      expect(screen.css(".screen-teams section").map { |each| each.text.split })
        .to eq([%w[Reed 0], %w[Sedge 1 Ada]])
      get "/desk/#{session.id}"
      expect(page.at_css(".perch-team")["title"]).to eq("Sedge")
      get page.at_css(".perch button")["hx-get"]
      seat = page.at_css("form[hx-post$='/team']")["hx-post"]
      post_form seat, team: teams.first
      get "/desk/#{session.id}"
      expect(page.at_css(".perch-team")["title"]).to eq("Reed")
    end

    it "show a student's pass to their teacher, and print all of them" do
      get "/classes/#{kestrel}"
      address = page.at_css("tbody a")["href"]
      get address
      expect(page.at_css(".class-pass p").text).to start_with("No pass yet")
      post_form "#{address}/pass"
      follow_redirect!
      expect(page.at_css(".class-pass .code").text).to match(/\A\w{4} \w{4} \w{4}\z/)
    end

    it "are given cards with their passes, drawn in the background, which says how far it is", :aggregate_failures do
      stub_const("Roost::Operations::ClassPasses::AT_ONCE", 1)
      bring(("A".."I").map { |letter| "Heron #{letter}" }.join("\n"))
      get "/classes/#{kestrel}/passes.file" # nothing there yet
      follow_redirect!
      2.times { post_form "/classes/#{kestrel}/passes" }
      follow_redirect!
      expect([page.at_css("[role=status]").text, database[:que_jobs].count]).to match([/Making the PDF/, 1])
      told = []
      look = lambda do |draw, *given, **about|
        get "/classes/#{kestrel}/passes"
        told << page.at_css("progress")["value"]
        draw.call(*given, **about)
      end
      allow(Roost::Exchange::PassCards).to receive(:cards).and_wrap_original(&look)
      Roost::Jobs::MakeExport.run(database[:exports].get(:id))
      expect(told).to eq(%w[0 1])
      get "/classes/#{kestrel}/passes"
      get page.at_css(".export a")["href"]
      expect([last_response["content-type"], last_response.body[0, 5]]).to eq(["application/pdf", "%PDF-"])
      post_form "/classes/#{kestrel}/students/#{database[:students].where(name: "Heron A").get(:id)}/pass"
      get "/classes/#{kestrel}/passes.file" # it has a pass that is good no more
      expect(last_response.status).to eq(303)
      expect { Roost::Jobs::ForgetExports.new({}).does }.to change { Dir[Roost.settings.var("exports", "*")].length }.to(0)
    end

    it "tell two with the same full name apart in every list: by number, by group, or by what others see", :aggregate_failures do
      database[:students].update(deleted_at: Sequel.function(:now))
      bring("Rhea Moor\nRhea Moor\nBo Fen\nBo Fen")
      moors = database[:students].where(name: "Rhea Moor").order(:id).select_map(:id)
      moors.zip(%w[41 42]) { |id, number| database[:students].where(id: id).update(number: number) }
      told = ["Rhea Moor (41)", "Rhea Moor (42)", "Bo Fen (Bo)", "Bo Fen (Bo F)"]
      get "/classes/#{kestrel}"
      labels = page.css("[aria-label^='Choose ']").map { |box| box["aria-label"].delete_prefix("Choose ") }
      expect(labels).to match_array(told)
      session = start(entry: "free", opens_itself: "1")
      get "/desk/#{session.id}"
      told.each { |name| expect(page.at_css(".desk-missing").text).to include(name) }
      take_seat(session, "Guest")
      command(session, "begin")
      command(session, "jump", slide: Roost::Store::Sessions.new.lesson(session.id).prompts.first.id)
      command(session, "end")
      database[:openings].update(opened_at: Sequel.lit("opened_at - interval '1 minute'"))
      get "/results/#{session.id}"
      told.each { |name| expect(page.at_css(".attendance").text).to include(name) }
      opens, closes = [-3600, 3600].map { |more| (Time.now.utc + more).strftime("%Y-%m-%dT%H:%M") }
      form = { "class_id" => kestrel.to_s, "entry" => "list", "opens_at" => opens, "closes_at" => closes, "attempts" => "1" }
      get "/assignments/#{Roost::Operations::AssignLesson.new.call(account, lesson, form).value.id}"
      expect(page.css("tbody th").map { |cell| cell.text.strip }).to match_array(told)
    end

    it "offer what was chosen for it last time" do
      start(entry: "made_up", extra: "Table", speed_share: "0.5")
      get "/lessons/#{lesson}/start?class_id=#{kestrel}"
      expect(page.at_css("[name=entry][checked]")["value"]).to eq("made_up")
      expect(page.at_css("#extra")["value"]).to eq("Table")
      expect(page.at_css("[name=opens_itself]")["checked"]).to be_nil
      get "/lessons/#{lesson}/start?class_id="
      expect(page.css("[name=entry]").map { |input| input["value"] }).to eq(%w[free made_up])
    end

    it "go from a typed code to what is asked, and count wrong codes on both ways" do
      session = start(entry: "free", extra: "Number")
      post "/join", "code" => session.code.downcase
      expect([last_response.status, last_response["location"]]).to match([303, %r{/join/#{session.code}\z}])
      follow_redirect!
      expect(page.css("label").map do |label|
        label.text.strip
      end).to eq(["Your name", "Number", "The name you joined with", "Your number"])
      post "/join/#{session.code}", "name" => "Cleo"
      expect(page.at_css("[role=alert]").text).to eq("“Number” is missing. Type it, too.")
      expect(page.at_css("#name")["value"]).to eq("Cleo")
      25.times { get "/join/ZZZ99X" }
      expect(last_response.status).to eq(429)
    end
  end
end

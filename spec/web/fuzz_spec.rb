# frozen_string_literal: true

# Every address there is, taken from the apps, with what nobody would send: by nobody, by a teacher
# and from a seat. Nothing may break, and no answer may lack its headers.
RSpec.describe "Any request" do
  requests = 5_000
  web = Roost::Web

  # @return [Array<Array(String, String)>] verb and address, with names where something stands for them
  def self.addresses
    apps = { **Roost::Web::Application::PUBLIC, **Roost::Web::Application::FOR_TEACHERS, "/outbox" => [Roost::Web::Outbox] }
    own = apps.flat_map do |mount, list|
      list.product(%w[GET POST]).flat_map do |app, verb|
        app.routes.fetch(verb, []).map { |pattern, *| [verb, "#{mount.delete_suffix("/")}#{pattern.to_s.delete("\\")}"] }
      end
    end
    accounts = Roost::Web::Authentication.rodauth.route_hash.keys.product(%w[GET POST]).map { |path, verb| [verb, path] }
    bare = %w[/stream/seat/:token /stream/screen/:key /stream/desk/:id /answers/:token /assets/:file
              /welcome].product(%w[GET POST])
    own + accounts + bare.map(&:reverse)
  end

  addresses = addresses()

  it "is known for all addresses" do
    expect(addresses.length).to be > 90
    expect(addresses.map(&:last)).to include("/lessons/:id/slides/:slide", "/desk/:id/commands", "/sign-up", "/seat/:token")
  end

  odd = ["", " ", "0", "-1", "1", "9" * 20, "1e9", "../../etc/passwd", "%00", "%FF", "%", "%2e%2e", "<b>" * 420,
         "\u0301" * 3_000, "a" * 1_900, "NaN", "null", "true", "[]", "{}", "💥", "\u202E", "' OR 1=1 --", "s1", "p1", "o1",
         "choice", "order", "next", "jump", "quiz:x", "section:quiz", "remove", "add", "2147483648", "0x1F", "١"].freeze
  names = %w[title heading text aside notes slide section ids[] questions[] prompt[do] prompt[keys][] prompt[keys][m1]
             prompt[text] prompt[regions] prompt[option_ids][] prompt[option_texts][] prompt[value] prompt[most] prompt[boxes]
             rev kind do lesson way to moved from command what seat page q shelf subject level option drawing after words count
             email password name code key deleted changed removed undo w v cards in_lesson set_aside may_edit open starred
             archived speed_share class_name seen revision picture_files[] picture_alts[] pictures[x] prompt prompt[]
             package classes[] students[] apart[] names stroke part points colour width erase at keypad answer student
             battery range once opens_at closes_at attempts counts released seconds session chosen question student_id
             team paper number size allowed pass extra device
             to limit draw feedback rules must_answer seats[] marks[x] marks[1] mark undone
             a[b][c][d][e][f] ticket starter sign_in column told held[] held_options[x] before].freeze

  encoded = odd.to_h { |value| [value, URI.encode_www_form_component(value)] }

  # A teacher signed in, with a lesson and a session in which somebody sits and has answered: as often
  # as needed, since what is sent deletes and ends things.
  # Of every kind one.
  def all_kinds
    asked = Roost::Core::Kinds.all.map { |kind| slide("k#{kind.kind}", heading: kind.label, prompt: made(kind)) }
    Roost::Core::Lesson.new(title: "All", slides: marsh_lesson.slides + asked, sections: marsh_lesson.sections)
  end

  def made(kind)
    files = Dir[File.join(Roost::Settings::ROOT, "demo/lessons/*.yml")].map { |file| YAML.safe_load_file(file) }.grep(Hash)
    source = files.flat_map { |each| each["slides"].filter_map { |one| one["prompt"] } }.find { |each| each["kind"] == kind.kind }
    kind.new(id: "p#{kind.kind}", settings: source.to_h.except("kind"))
  end

  # A class with a student, and an assignment that one of them has begun.
  def for_a_class(account, lesson_id)
    klass = Roost::Operations::KeepClass.new.create(account, { "name" => "7 Kestrel" }).value
    Roost::Operations::FillClass.new.fill(account, klass, Roost::Core::ClassList.paste("Ada Holm").value)
    student = Roost::Store::Students.new.of_class(klass).first
    Roost::Store::Students.new.give_pass(student.id, pass = Roost::Core::StudentPass.make(SecureRandom))
    now = Roost::Operations::SchoolClock.here.field(Roost::Store::Sessions.new.now)
    times = { "opens_at" => now, "closes_at" => now.sub(/\A\d+/) { |year| (year.to_i + 1).to_s }, "class_id" => klass.to_s }
    given = Roost::Operations::AssignLesson.new.call(account, lesson_id, { **times, "entry" => "pass" }).value
    token = Roost::Operations::EnterByPass.new.call(pass, given.id).value
    seat = Roost::Store::Seats.new.by_token(token)
    Roost::Operations::TakeSitting.new.call(seat, given, begins: true)
    { "klass" => klass, "student" => student.id, "pass" => pass, "given" => given.id, "alone" => token }
  end

  def world(turn)
    account = teacher(email: "teacher#{turn}@heronsgate.example")
    session = kept_session(account, all_kinds)
    seat, token = take_seat(session)
    command(session, "begin")
    command(session, "jump", slide: "s5")
    save(session, seat, "s5", { "strokes" => ['[{"tool":"pen","colour":"ink","points":[1,1]}]'] })
    clear_cookies
    sign_in("teacher#{turn}@heronsgate.example")
    own = for_a_class(account, session.lesson_id)
    cookie = rack_mock_session.cookie_jar.get_cookie("roost").raw.split(";").first
    of_seat = { "token" => token, "seat" => seat[:id], "name" => Roost::Web::AnswerPictures.ids.encode(seat[:id], "s5") }
    of_session = { "session" => session.id, "code" => session.code, "key" => session.screen_key }
    { **own, **of_seat, **of_session, "id" => session.lesson_id, "slide" => "s3", "section" => "round", "number" => 1,
                                      "cookie" => cookie, "csrf" => @token }
  end

  # What the numbers and tokens of an address are those of.
  def known_for(address, known, random)
    alone = random.rand < 0.4
    own = case address
          when %r{\A/(?:desk|results)} then { "id" => alone ? known["given"] : known["session"] }
          when %r{\A/classes} then { "id" => known["klass"] }
          when %r{\A/assignments} then { "id" => known["given"] }
          when %r{\A/(?:seat|sitting|stream|answers)} then alone ? { "token" => known["alone"] } : {}
          else {}
          end
    known.merge(own)
  end

  def filled(address, known, random)
    address.gsub(/:(\w+)|\(\\d\+\)|\(\\w\+\)|\(svg\|png\)|\(d\+\)|\(w\+\)/) do
      name = Regexp.last_match(1) || "id"
      random.rand < 0.6 ? known.fetch(name, known["id"]).to_s : yield(random)
    end
  end

  define_method(:body) do |random|
    pairs = Array.new(random.rand(6)) { [names.sample(random: random), odd.sample(random: random)] }
    commands = %w[next back jump open close show hide curate talk move_talk pair pen board end]
    pairs << %w[rev 1] << ["command", commands.sample(random: random)]
    form = pairs.map { |name, value| "#{name}=#{random.rand < 0.8 ? encoded.fetch(value, value) : value}" }.join("&")
    case random.rand(8)
    when 0 then ["application/json", [odd.sample(random: random), JSON.generate([pairs.to_h]), "{" * 300].sample(random: random)]
    when 1
      parts = pairs.map do |name, value|
        "--x\r\nContent-Disposition: form-data; name=\"#{name}\"; filename=\"#{value[0, 60]}\"\r\n\r\n#{value}\r\n"
      end
      ["multipart/form-data; boundary=x", "#{parts.join}--x#{"--" if random.rand < 0.7}\r\n"]
    when 2 then [["multipart/form-data", "multipart/form-data; boundary=#{"x" * 300}"].sample(random: random), form]
    when 3 then ["text/plain; charset=\xFF".b, form]
    else ["application/x-www-form-urlencoded", form]
    end
  end

  it "gets an answer that is no fault of ours, with its headers, #{requests} times" do
    random = Random.new(20_261_125)
    spent = Random.new(7)
    bad = []
    statuses = Hash.new(0)
    allow(web::ErrorBoundary).to receive(:note) { |error|
      bad << [error.class, error.message[0, 160], error.backtrace.grep(%r{lib/roost}).first]
    }
    known = nil
    requests.times do |turn|
      known = world(turn) if (turn % 100).zero?
      verb, address = addresses[turn % addresses.length]
      path = filled(address, known_for(address, known, random), random) do |from|
        odd.sample(random: from)
      end
      role = %i[nobody teacher teacher teacher seat].sample(random: random)
      next if address == "/sign-out" && role == :teacher

      type, sent = body(random)
      query = random.rand < 0.3 ? "#{names.sample(random: random)}=#{odd.sample(random: random)}" : ""
      env = Rack::MockRequest.env_for("/", method: verb, input: sent.b)
      env.merge!("PATH_INFO" => path.b.gsub(/[^\x21-\x7e]/n) do |byte|
        format("%%%02X", byte.ord)
      end.sub("?", "%3F"), "QUERY_STRING" => query.b,
                 "CONTENT_TYPE" => type, "REMOTE_ADDR" => "10.0.#{turn % 250}.#{spent.rand(250)}")
      env["HTTP_HX_REQUEST"] = "true" if random.rand < 0.3
      env.merge!("HTTP_COOKIE" => known["cookie"], "HTTP_X_CSRF_TOKEN" => known["csrf"]) if role == :teacher
      status, headers, answer = app.call(env)
      answer.close if answer.respond_to?(:close)
      statuses[status] += 1
      what = "#{turn} #{role} #{verb} #{[path, query, type, sent].map { |text| text.b[0, 80].inspect }.join(" ")}"
      bad << [status, what] if status >= 500
      bad << ["headers", what] unless web::Application::HEADERS.keys.all? { |name| headers[name] }
    end
    warn statuses.inspect if ENV["SHOW"]
    warn bad.first(8).map(&:inspect) if ENV["SHOW"]
    expect(bad.first(12)).to eq([])
    expect(statuses.keys & [200, 302, 303, 400, 404, 422]).to include(200, 303, 400, 404, 422)
  end
end

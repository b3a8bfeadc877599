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
             package classes[] students[] apart[] languages[] names stroke part points colour width erase at keypad answer student
             battery range team paper number size allowed pass extra device
             to limit draw feedback rules must_answer
             a[b][c][d][e][f] ticket starter sign_in column told held[] held_options[x] before].freeze

  encoded = odd.to_h { |value| [value, URI.encode_www_form_component(value)] }

  # A teacher signed in, with a lesson and a session in which somebody sits and has answered: as often
  # as needed, since what is sent deletes and ends things.
  def world(turn)
    account = teacher(email: "teacher#{turn}@heronsgate.example")
    session = kept_session(account)
    seat, token = take_seat(session)
    command(session, "begin")
    command(session, "jump", slide: "s5")
    save(session, seat, "s5", { "strokes" => ['[{"tool":"pen","colour":"ink","points":[1,1]}]'] })
    clear_cookies
    sign_in("teacher#{turn}@heronsgate.example")
    { "id" => session.lesson_id, "token" => token, "key" => session.screen_key, "slide" => "s3", "seat" => seat[:id],
      "code" => session.code, "section" => "round", "number" => 1, "session" => session.id,
      "name" => Roost::Web::Given.seal.close(seat[:id], "s5"),
      "cookie" => rack_mock_session.cookie_jar.get_cookie("roost").raw.split(";").first, "csrf" => @token }
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
    when 2 then ["multipart/form-data", form]
    when 3 then ["text/plain; charset=\xFF".b, form]
    else ["application/x-www-form-urlencoded", form]
    end
  end

  it "gets an answer that is no fault of ours, with its headers, #{requests} times" do
    random = Random.new(20_261_125)
    spent = Random.new(7)
    bad = []
    statuses = Hash.new(0)
    allow(web::LastResort).to receive(:note) { |error|
      bad << [error.class, error.message[0, 160], error.backtrace.grep(%r{lib/roost}).first]
    }
    known = nil
    requests.times do |turn|
      known = world(turn) if (turn % 100).zero?
      verb, address = addresses[turn % addresses.length]
      by_session = address.start_with?("/desk", "/results")
      path = filled(address, by_session ? known.merge("id" => known["session"]) : known, random) do |from|
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

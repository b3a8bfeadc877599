# frozen_string_literal: true

RSpec.describe "Game rounds over HTTP" do
  let(:account) { teacher }
  let(:lesson_id) { kept_lesson(account) }
  let(:session) { kept_session(account) }
  let(:page) { last_response.body.gsub(/\s+/, " ") }

  before { account && sign_in("falk@heronsgate.example") }

  def kept_section = Roost::Store::Lessons.new.look(account, lesson_id).lesson.sections.section("round")

  def choose(**fields) = post_form("/lessons/#{lesson_id}/sections/round", way: "game", rules: "round", slide: "s3", **fields)

  describe "in the builder" do
    it "have a style, a speed, a goal and a way for teams, which a session begins with" do
      choose(style: "together", speed: "0.5", goal: "80", answering: "one", talk: "30")
      expect(kept_section.round_rules).to eq("style" => "together", "speed" => 0.5, "goal" => 0.8, "answering" => "one",
                                             "talk" => 30)
      started = Roost::Operations::StartSession.new.call(account, lesson_id, { "opens_itself" => "1" }).value
      command(started, "begin")
      3.times { command(started, "next") }
      play = moment(started).state.plays["round"].first
      expect([play.style, play.speed, play.goal, play.answering]).to eq(["together", 0.5, 0.8, "one"])
    end

    it "keep to what there is, whatever is sent" do
      choose(style: "rocket", speed: "9", goal: "-4", answering: "shout", talk: "99999")
      expect(kept_section.round_rules).to eq("style" => "points", "speed" => nil, "goal" => 0.05, "answering" => "alone",
                                             "talk" => 300)
    end

    it "show what speed does to the question at hand, and propose a time for it" do
      choose(style: "points", speed: "0.5")
      get "/lessons/#{lesson_id}?slide=s3"
      expect(page[/Points over time[^"]+/])
        .to eq("Points over time. Reading, 5 s, costs nothing. A right answer that is quick, after 7 s: 95 points; average, " \
               "after 13 s: 80 points; slow, after 23 s: 55 points.")
      expect(page).to match(/Proposed for this question:.{0,120}>30 s</)
    end
  end

  describe "played" do
    let(:seat) { take_seat(session, "Ada") }

    before do
      seat
      command(session, "begin")
      command(session, "play", section: "round", style: "steady")
      Roost::Store::Deliveries.new.note(session.id, "s3", [seat.first[:id]])
      save(session, seat.first, "s3", { "options" => ["o1"] })
      command(session, "close")
    end

    def why = get("/seat/#{seat.last}/why/s3/1").status

    it "say why these points to whoever earned them, once the room was told, and to nobody before" do
      expect(why).to eq(404)
      database[:openings].where(session_id: session.id).exclude(closed_at: nil)
                         .update(closed_at: Sequel.lit("closed_at - interval '2 seconds'"))
      command(session, "show", what: "key")
      expect([why, page]).to match([200, include("100 points × 1 for the mark = 100.")])
      expect(get("/seat/#{seat.last}/why/s2/1").status).to eq(404)
      expect(get("/seat/#{seat.last}/why/s3/7").status).to eq(404)
      expect(get("/seat/nobody/why/s3/1").status).to eq(404)
    end

    it "are looked back on, each time they were played, by their teacher only" do
      command(session, "play", section: "round", style: "sure")
      save(session, seat.first, "s3", { "options" => ["o2"], "certainty" => ["2"] }, attempt: 2)
      command(session, "end")
      get "/results/#{session.id}/rounds"
      expect(page).to include("Played the 1st time: Steady").and include("Played the 2nd time: Sure")
      expect(page.scan(%r{Ada</th><td class="is-figure">(-?\d+)</td>}).flatten).to eq(%w[100 -67])
      teacher(email: "moss@heronsgate.example")
      clear_cookies
      sign_in("moss@heronsgate.example")
      expect(get("/results/#{session.id}/rounds").status).to eq(404)
    end

    it "are silent unless the teacher wants sounds, and then on the class screen or on devices, too" do
      heard = lambda do |sounds|
        chosen = Sequel.pg_jsonb_op(:options).concat(Sequel.pg_jsonb({ "sounds" => sounds }))
        database[:sessions].where(id: session.id).update(options: chosen)
        ["/screen/#{session.screen_key}", "/seat/#{seat.last}"].map { |address| get(address).body.include?("data-cue") }
      end
      expect(%w[off screen devices].map(&heard)).to eq([[false, false], [true, false], [true, true]])
    end
  end
end

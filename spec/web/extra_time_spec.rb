# frozen_string_literal: true

RSpec.describe "Extra time in the room" do
  let(:session) { kept_session(teacher).tap { |row| command(row, "begin") } }
  let(:right) { { "options" => ["o1"] } }

  def question = Roost::Store::Sessions.new.lesson(session.id).slide("s3")

  # The question opened, and its time was over so many seconds ago for who has no extra time.
  def over(seconds)
    limit = question.prompt.time_limit
    command(session, "jump", slide: "s3")
    database[:openings].update(opened_at: Sequel.lit("clock_timestamp() - make_interval(secs => ?)", limit + seconds),
                               clock_at: Sequel.lit("clock_timestamp() - make_interval(secs => ?)", limit + seconds),
                               deadline: Sequel.lit("clock_timestamp() - make_interval(secs => ?)", seconds))
    Roost::Operations::CommandSession.new.by_clock(session.id, "expire")
  end

  def shown(token) = get("/seat/#{token}").body

  it "leaves a question open to whoever has it, and closed to the others, in the page and for what is sent",
     :aggregate_failures do
    (ada, ada_token), (bo, bo_token) = %w[Ada Bo].map { |name| take_seat(session, name) }
    Roost::Store::Seats.new.arrive(ada[:id], "stream")
    database[:seats].where(id: ada[:id]).update(time_factor: 2)
    database[:seats].update(joined_at: Sequel.lit("joined_at - interval '5 minutes'"))
    over(4)
    expect([shown(ada_token), shown(bo_token)].map { |page| page.include?("Answers are closed") }).to eq([false, true])
    replies = [ada, bo].map { |seat| save(session, seat, "s3", right).state }
    expect(replies).to eq(%w[final late])
    expect([ada, bo].map { |seat| moment(session).record.outcome("s3", seat[:id]).mark }).to eq([1, 0])
    expect(moment(session).state.open?).to be(true)
    over(question.prompt.time_limit + 2)
    expect(moment(session).state.open?).to be(false)
    expect(shown(ada_token)).to include("Answers are closed")
  end
end

# frozen_string_literal: true

# A practice class stands in for students who are missing, and is taken for nobody.
RSpec.describe "A practice class" do
  it "is marked as one in the lobby, in the results and in the CSV, and counts as nobody there" do
    account = teacher
    session = kept_session(account)
    ada, = take_seat(session, "Ada")
    expect(Roost::Operations::PracticeClass.new.invite(account, session.id, 3)).to be_ok
    sign_in
    page = Nokogiri::HTML(get("/desk/#{session.id}").body)
    heads = page.css("h2").map { |each| each.text.gsub(/\s+/, " ") }
    expect(heads).to include("1 student in the lobby, and 3 of a practice class")
    expect(page.text.scan("(practice)").length).to be >= 3
    command(session, "begin")
    command(session, "jump", slide: "s3")
    save(session, ada, "s3", { "options" => ["o1"] })
    command(session, "end")
    table = CSV.parse(get("/results/#{session.id}/results.csv").body.dup.force_encoding("UTF-8").delete_prefix("\uFEFF"),
                      headers: true)
    expect(table.headers).to include("Practice")
    expect(table.map { |row| [row["Student"].to_s.include?("(practice)"), row["Practice"] == "yes"] }.uniq.sort_by(&:to_s))
      .to eq([[false, false], [true, true]])
  end
end

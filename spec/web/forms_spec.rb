# frozen_string_literal: true

# Goes through every page that a teacher can get to, fills in what can be written in each form, presses its button, and reads
# it back from the page afterwards.
RSpec.describe "Every form that is written in" do
  # Whose fields aren't there afterwards, and why.
  let(:otherwise) do
    { %r{\A/classes/N/list\z} => "is looked through first", %r{/shares\z} => "somebody else has to have an account",
      %r{\A/school/invitations\z} => "a mail goes out", %r{\A/join\z} => "leads to a seat", %r{/start\z} => "leads to the Desk",
      %r{/grades/columns\z} => "stands on the page of the new column" }
  end
  let(:starts) { %w[/lessons /classes /results /assignments /account /school /bank /standards] }
  # What is no text of any kind.
  let(:values) do
    { "web" => "https://marsh.example/birds", "top_grade" => "12", "grade_step" => "0.5", "domains" => "marsh.example",
      "time_zone" => "Europe/Lisbon", "limit" => "20", "draw" => "1", "minutes" => "17", "grade_table" => "90 Heron",
      "possible" => "25", "prompt[rubric]" => "Heron: none 0, some 1" }
  end
  # Numbers in tables.
  let(:numbers) { { /weight/ => "2.5", /dropped/ => "3", /\Apoints\[/ => "7.5" } }
  # What only fills in other fields.
  let(:asides) { %w[pasted] }
  let(:fields) { "input[type=text], input:not([type]), input[type=email], textarea" }

  let(:account) { teacher }

  before do
    account
    sign_in
    post_form "/classes", name: "7K"
    post_form "/classes/#{database[:classes].max(:id)}/list", names: "Ada Lindqvist\nBo Marsh"
    press("$='/students'")
    kept_lesson(account)
    session = kept_session(account)
    %w[begin end].each { |name| command(session, name) }
  end

  def page = Nokogiri::HTML(last_response.body)

  def plain(path) = path.sub(/[?#].*/, "").gsub(/\d+/, "N").gsub(%r{/(s\w{12}|sN\w*)(?=/|\z)}, "/S")

  def html? = last_response.ok? && last_response.content_type.to_s.include?("html")

  # @return [Hash{String=>String}] addresses of forms, without numbers, to the page they were first seen on
  def forms
    found = {}
    seen = Set[]
    queue = starts.dup
    until queue.empty?
      path = queue.shift
      next unless seen.add?(plain(path))

      get path
      next unless html?

      sending.each { |form| found[plain(address(form))] ||= path if written(form).any? }
      queue.concat(page.css("a[href^='/']").map { |link| link["href"] }.grep_v(/sign-out|\.(?:csv|pdf|zip|xlsx)/))
    end
    found
  end

  def sending = page.css("form").select { |form| form["method"] == "post" || form["hx-post"] }

  def address(form) = form["action"] || form["hx-post"]

  def written(form)
    form.css(fields).reject do |field|
      field["name"].nil? || field["readonly"] || field["disabled"] || field["type"] == "hidden" || asides.include?(field["name"])
    end
  end

  # What is written into a field: nothing else on the page reads so.
  def value_for(field, number)
    return "heron#{number}@heronsgate.example" if field["type"] == "email"

    values[field["name"]] || numbers.find { |name, _| field["name"].match?(name) }&.last || begin
      "Heron #{number} of the marsh"[0, field["maxlength"]&.to_i || 40].strip
    end
  end

  # @return [Array<String>] names of fields whose values can't be found afterwards
  def lost(path, action)
    get path
    form = sending.find { |each| plain(address(each)) == action && written(each).any? }
    sent = written(form).each_with_index.to_h { |field, number| [field["name"].to_sym, value_for(field, number)] }
    submit(form, **sent)
    status = last_response.status
    after = last_response.redirect? ? follow_redirect!.body : last_response.body
    return ["#{status}: #{(page.at_css(".refusal") || page).text.squeeze(" \n")[0, 200]}"] if status >= 400

    get path
    texts = [after, last_response.body].flat_map { |body| texts(Nokogiri::HTML(body)) }
    sent.reject { |_, value| texts.any? { |text| text.include?(value) } }.keys
  end

  def texts(page) = [page.text, *page.css("[value]").map { |field| field["value"] }]

  it "keeps what was written, or says why not" do
    found = forms
    expect(found.length).to be >= 15
    losing = found.reject { |action, _| otherwise.keys.any? { |pattern| action.match?(pattern) } }
                  .to_h { |action, path| [action, lost(path, action)] }
    expect(losing.reject { |_, fields| fields.empty? }).to eq({})
    expect(otherwise.keys.reject { |pattern| found.keys.any? { |action| action.match?(pattern) } }).to eq([])
  end
end

# frozen_string_literal: true

require "tempfile"

RSpec.describe "Results on paper" do
  let(:questions) { (1..16).map { |number| slide("q#{number}", heading: "Quest #{number}", prompt: choice(keys: ["o1"])) } }
  let(:session) { kept_session(teacher, Roost::Core::Lesson.new(title: "Marsh", slides: questions)) }
  let(:names) { Array.new(28) { |number| "Student-#{format("%02d", number + 1)}" } }

  # @return [Array<Array(Float, Array)>] a page: its width, and its words with where each ends
  def print(page)
    shot = page.driver.browser.execute_cdp("Page.printToPDF", printBackground: false, paperWidth: 8.27, paperHeight: 11.69)
    Tempfile.create(["print", ".pdf"], binmode: true) do |file|
      file.write(shot["data"].unpack1("m"))
      file.flush
      told = `pdftotext -bbox #{file.path} -`
      told.scan(/<page width="([\d.]+)"/).flatten.map(&:to_f)
          .zip(told.split("<page ").drop(1).map { |text| text.scan(/xMax="([\d.]+)" yMax="[\d.]+">([^<]*)</) })
    end
  end

  it "begin on page 1, fit its width, and say the names beside every question" do
    names.each { |name| take_seat(session, name) }
    command(session, "begin")
    questions.drop(1).each { |each| command(session, "jump", slide: each.id) }
    put_back(session, 100, :opened_at)
    desk = sign_in_window.tap { |page| page.visit "/results/#{session.id}" }
    desk.click_link "Print"
    desk.first(".grid th", text: "Student-01")
    pages = print(desk)
    expect(pages.first[1].map(&:last)).to include("Student-01", "Quest")
    expect(pages.flat_map { |width, found| found.select { |right, _| right.to_f > width - 20 } }).to be_empty
    words = pages.flat_map { |_, found| found.map(&:last) }
    numbers = words.each_cons(2).filter_map { |one, other| other if one == "Quest" }
    expect(numbers.uniq.map(&:to_i).sort).to eq((1..16).to_a)
    expect(words.count("Student-28")).to eq(3)
  end
end

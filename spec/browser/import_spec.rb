# frozen_string_literal: true

require "tempfile"
require_relative "../../bench/server"

RSpec.describe "A PDF coming into a lesson" do
  let!(:account) { teacher }
  let(:workers) { [] }

  after do
    workers.each(&:stop)
  end

  def start_worker = workers << Bench::Server.worker({ "ROOST_ENV" => "test" })

  it "shows its pages one by one, through the death of the worker in the middle" do
    kept_lesson(account)
    page = sign_in_window(at: "/lessons")
    page.click_link "Edit"
    page.click_link "Add a PDF"
    start_worker
    Tempfile.create(["birds", ".pdf"]) do |file|
      file.binmode
      file.write(Pdfs.make((1..14).map { |number| "Page #{number}: birds that leave" }))
      file.flush
      page.attach_file "File", file.path
      page.first(:button, "Import").click
      page.find(".builder") # the browser reads the file while it sends it
    end
    expect(page).to have_css(".thumb-name", text: "Page 2: birds that leave", wait: 60)
    Process.kill(:KILL, workers.first.pid)
    start_worker
    expect(page).to have_css(".is-import", text: "is in: 14 slides.", wait: 90)
    expect(page).to have_css(".thumb-name", text: "birds that leave", count: 14)
    page.click_button "Remove these slides"
    expect(page).to have_css(".thumb-name", text: "birds that leave", count: 0)
    page.click_button "Undo", match: :first
    expect(page).to have_css(".thumb-name", text: "birds that leave", count: 14)
  end
end

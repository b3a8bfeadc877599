# frozen_string_literal: true

require "stringio"
require_relative "../spec/support/pdfs"

module Bench
  # What preparing costs: a save in lessons of different length, a search in many lessons,
  # a PDF from the drop to its last slide.
  class Preparing
    LENGTHS = [10, 60, 120].freeze
    EDITS = 40
    LESSONS = 2000
    SLIDES = 6
    WORDS = %w[bird swallow frost reed heron marsh egg nest migration beak feather tide moon flock river].freeze
    SEARCHES = ["q=bird", "q=swallow+frost", "q=migrat", "q=Lesson+17", "q=reed+heron+marsh", "q=zebra",
                "q=bird&subject=Science&shelf=drafts"].freeze
    PAGES = 40
    GOALS = { edit_120_ms: "under 50", edit_growth: "about 1", search_ms_max: "at most 120", pdf_40_pages_s: "none set" }.freeze

    # @param account [Integer] id of the teacher that `server` signs in
    # @param server [Server]
    def initialize(account, server)
      @account = account
      @http, @headers = server.teacher
    end

    # @return [Hash{Symbol=>Numeric}]
    def call = { **edits, **searches, **pdf }

    private

    def lessons = Roost::Store::Lessons.new

    def make(title, slides, **details)
      about = Roost::Core::Details.new(**Roost::Core::Details.blank.to_h, **details).freeze
      lessons.create(@account, Roost::Core::Lesson.new(title: title, slides: slides, details: about))
    end

    # One slide is saved as the builder does it: from request to reply.
    def edits
      times = LENGTHS.to_h { |length| [length, edit_times(length)] }
      { edit_10_ms: times[10].round(1), edit_60_ms: times[60].round(1), edit_120_ms: times[120].round(1),
        edit_growth: (times[120] / times[10]).round(2) }
    end

    def edit_times(length)
      id = make("Long", Array.new(length) do |number|
        Roost::Core::Slide.new(id: "s#{number}", heading: "Slide #{number}", text: "Think of what a swallow eats. " * 20)
      end)
      Bench.median(Array.new(EDITS) do |turn|
        body = URI.encode_www_form(rev: turn + 1, heading: "Changed #{turn}", text: "Think of frost. " * 20, notes: "")
        timed { @http.post("/lessons/#{id}/slides/s5", body, @headers.merge("hx-request" => "true")) }
      end)
    end

    def searches
      fill_shelf
      times = SEARCHES.map { |query| Bench.median(Array.new(7) { timed { @http.get("/lessons?#{query}", @headers) } }) }
      { search_ms_max: times.max.round(1), search_ms_median: Bench.median(times).round(1) }
    end

    def fill_shelf
      database = Roost::Store::Database.connection
      database.transaction { LESSONS.times { |number| make_lesson(number) } }
      database.run("ANALYZE")
    end

    def make_lesson(number)
      slides = Array.new(SLIDES) do |place|
        prompt = Roost::Core::Kinds.all.first.new(id: "p#{place}", settings: {}) if place.positive?
        heading = place == 3 ? "" : WORDS.rotate(number + place).first(4).join(" ")
        Roost::Core::Slide.new(id: "s#{place}", heading: heading, text: heading.empty? ? "" : "Look and write. " * 8,
                               prompt: prompt)
      end
      make("Lesson #{number}", slides, subject: %w[Science Maths History][number % 3], level: "Year #{(number % 6) + 4}")
    end

    def pdf
      worker = Server.worker({ "ROOST_ENV" => "bench" })
      sleep 4
      file = StringIO.new(Pdfs.make(Array.new(PAGES) { |number| "Page #{number}: birds that leave the marsh" }))
      began = Bench.clock
      import = Roost::Operations::ImportFile.new.call(@account, make("PDF", []), file, "birds.pdf", after: nil).value
      imports = Roost::Store::Imports.new
      sleep 0.05 while imports.find(import).coming? && Bench.clock < began + 120
      { pdf_40_pages_s: (Bench.clock - began).round(1) }
    ensure
      worker.stop
    end

    # Milliseconds that a request takes; it must be answered well.
    def timed
      began = Bench.clock
      reply = yield
      raise "refused: #{reply.code} #{reply.body[0, 200]}" unless reply.code.start_with?("2")

      (Bench.clock - began) * 1000
    end
  end
end

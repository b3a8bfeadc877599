# frozen_string_literal: true

require "tmpdir"

module Roost
  module Operations
    # The results of a session on paper (Exchange::ResultsPaper).
    class SessionPaper
      TYPE = "application/pdf"
      SIZE = "A4"
      MOST_PICTURES = 400
      SIGNS = { right: "✓", part: "◐", wrong: "✗", given: "•", to_mark: "…", set_aside: "∕", unread: "?", late: "L", blank: "–",
                not_reached: "" }.freeze

      # @return [Store::Sessions::Row, nil]
      def subject(account_id, id) = Store::Sessions.new.of_teacher(account_id, id)

      # @param row [Store::Sessions::Row]
      # @return [String, nil]
      def file(row, &progress)
        made(row, progress) do |results, pictures|
          { title: row.title, overview: overview(results), grid: grid(results),
            students: results.lines.map { |line| student(results, line) }, sheets: sheets(results, results.lines, pictures) }
        end
      end

      private

      # @yieldparam results [Core::Analysis::Results]; pictures [PaperPictures]
      # @yieldreturn [Hash] as Exchange::ResultsPaper has it, but for when it was and the size
      def made(row, progress)
        results = Core::Analysis::Results.new(Store::Records.new.of(row))
        progress&.call(0, 2)
        Dir.mktmpdir do |folder|
          document = yield(results, PaperPictures.new(folder, most: MOST_PICTURES))
          progress&.call(1, 2)
          about = [row.class_name, day(row)].reject(&:empty?).join(" · ")
          Exchange::ResultsPaper.pdf({ about: about, size: self.class::SIZE, **document })
        end
      end

      def day(row) = SchoolClock.here.local(row.created_at).strftime("%-d %b %Y")

      def percent(share) = share ? "#{(share * 100).round(half: :up)} %" : "–"

      def overview(results)
        questions = results.questions.map { |question| [question.slide.name, percent(question.facility)] }
        all = [["Took part", "#{results.took_part} of #{results.lines.length}"],
               ["Right, of questions reached", percent(results.share)],
               ["Absent", results.record.missing.map(&:full_name).join(", ")], *questions]
        all.reject { |_, value| value.empty? }
      end

      def grid(results)
        slides = results.slides
        rows = results.lines.map do |line|
          [line.seat.name, slides.map { |slide| SIGNS.fetch(line.outcomes[slide.id].status) }, percent(line.share)]
        end
        { heads: slides.map(&:name), rows: rows } if slides.any?
      end

      def student(results, line)
        comments = (@comments ||= Store::Comments.new.of(results.record.seats.map(&:id)))
        said = ["#{percent(line.share)} right", "#{line.right} of #{line.marked} fully right",
                ("#{line.points} points" if results.game?)].compact.join(", ")
        rows = results.slides.map do |slide|
          written = comments.fetch([line.seat.id, slide.id], Core::Session::Comments::NONE)
          answer(slide, line.outcomes[slide.id]).merge(comment: written.in_words(results.record.attempt(slide.id, line.seat.id)))
        end
        { name: line.seat.name, line: said, rows: rows }
      end

      def answer(slide, outcome)
        given = outcome.answer
        text = given.readable? ? slide.prompt.plain(given.value) : given.typed_text if given
        right = slide.prompt.right_in_words if outcome.mark && outcome.mark < 1
        { question: slide.name, sign: SIGNS.fetch(outcome.status), given: text.to_s, right: right.to_s }
      end

      # Of kinds whose answers are pictures.
      def sheets(results, lines, pictures)
        results.slides.filter_map do |slide|
          drawn = lines.filter_map { |line| picture(slide, line, pictures) }
          { question: slide.name, pictures: drawn } if drawn.any?
        end
      end

      # @return [Array(String, String), nil] path and name
      def picture(slide, line, pictures)
        answer = line.outcomes[slide.id].answer
        path = pictures.answer(slide, answer.value) if answer&.readable?
        path && [path, line.seat.name]
      end
    end
  end
end

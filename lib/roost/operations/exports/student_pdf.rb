# frozen_string_literal: true

require "tmpdir"

module Roost
  module Operations
    # Everything that is kept about a student, for them to read, with what they drew and pictures that they sent.
    class StudentPdf < StudentRecord
      TYPE = "application/pdf"
      MOST_PICTURES = 300

      # @param subject [Subject]
      # @return [String, nil] nil when it could not be made now
      def file(subject, &progress)
        Dir.mktmpdir do |folder|
          pictures = PaperPictures.new(folder, most: MOST_PICTURES)
          document = StudentDocument.new(subject) { |*answer| { "pictures" => pictures(*answer, pictures) } }.to_h(progress)
          about = { **document["student"], "classes" => document["classes"].join(", ") }
          sessions = document["sessions"].map { |held| session_page(held) }
          pages = [page("About #{subject.student.name}", lines(about)), *sessions, *rest(document)]
          title = "What is kept about #{subject.student.name}"
          Exchange::CopySheet.pdf({ title: title, about: document["school"], pages: pages })
        end
      end

      private

      # @return [Array<String>] paths of what they drew, and of pictures that they sent
      def pictures(slide, value, pictures)
        sent = slide.prompt.drawn_parts(value).filter_map { |part| slide.prompt.picture_of(value, part) }
        [pictures.answer(slide, value), *sent.map { |picture| pictures.kept(picture.file) }].compact
      end

      def page(heading, lines)
        { heading: heading, texts: [], pictures: [], rows: lines.map { |line| row(line) } }
      end

      def lines(about) = about.reject { |_, value| value.to_s.empty? }.map { |name, value| "#{name.capitalize}: #{value}" }

      def session_page(held)
        rows = held["answers"].flat_map { |about| answer_rows(about) } + held["other notes"].map { |note| row(note, :note) }
        rows = [row("No answers.")] if rows.empty?
        { heading: "#{held["title"]}, #{held["date"]}", texts: [], pictures: [], rows: rows }
      end

      def answer_rows(about)
        others = Array(about["other attempts"]).flat_map { |other| [row("On attempt #{other["attempt"]}"), *given(other)] }
        [row(about["question"]), *given(about), row(earned(about)), *beside(about), row(about["comment"], :comment),
         row(about["own note"], :note), *others].compact
      end

      def earned(about)
        [about["outcome"], about["mark"] && "mark #{about["mark"]}", about["points"] && "#{about["points"]} points",
         about["seconds"] && "#{about["seconds"]} s"].compact.join(", ")
      end

      def given(about)
        [row(about["given"], :given), *Array(about["pictures"]).map { |path| { is: :given, picture: path } }].compact
      end

      # What was written and drawn beside an answer.
      def beside(about)
        rubric = about["rubric"]&.map { |criterion, level| "#{criterion}: #{level}" }&.join(", ")
        sent = about["sent as typed, not counted"]&.map { |text| row("Sent as typed, not counted: #{text}") }
        [row(rubric), (row("Your teacher drew on it.") if about["drawn on it"]), *sent]
      end

      # @return [Hash, nil] nil of nothing
      def row(text, what = :outcome) = ({ is: what, text: text } unless text.to_s.empty?)

      def rest(document)
        grades = document["grades"].map { |grade| grade.map { |name, value| "#{name}: #{value}" }.join(", ") }
        seen = document["looked_at"].map { |entry| entry.values.map(&:to_s).reject(&:empty?).join(", ") }
        [["Grades", grades], ["Who looked at this, or changed a mark", seen]].reject { |_, lines| lines.empty? }
                                                                             .map { |heading, lines| page(heading, lines) }
      end
    end
  end
end

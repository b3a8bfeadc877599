# frozen_string_literal: true

module Roost
  module Operations
    # Everything that is kept about a student, for them to read: a page each session.
    class StudentPdf < StudentRecord
      TYPE = "application/pdf"

      # @param subject [Subject]
      # @return [String, nil] nil when it could not be made now
      def file(subject, &progress)
        document = document(subject, &progress)
        about = { **document["student"], "classes" => document["classes"].join(", ") }
        pages = [page("About #{subject.student.name}", lines(about)), *document["sessions"].map do |held|
          session_page(held)
        end, *rest(document)]
        Exchange::CopySheet.pdf({ title: "What is kept about #{subject.student.name}", about: document["school"], pages: pages })
      end

      private

      def page(heading, lines)
        { heading: heading, texts: [], pictures: [], rows: lines.map { |line| { is: :outcome, text: line } } }
      end

      def lines(about) = about.reject { |_, value| value.to_s.empty? }.map { |name, value| "#{name.capitalize}: #{value}" }

      def session_page(held)
        rows = held["answers"].flat_map { |about| answer_rows(about) }
        rows = [{ is: :outcome, text: "No answers." }] if rows.empty?
        { heading: "#{held["title"]}, #{held["date"]}", texts: [], pictures: [], rows: rows }
      end

      def answer_rows(about)
        earned = [about["outcome"], about["mark"] && "mark #{about["mark"]}", about["points"] && "#{about["points"]} points",
                  about["seconds"] && "#{about["seconds"]} s"].compact.join(", ")
        rows = [[:outcome, about["question"]], [:given, about["given"]], [:outcome, earned], [:comment, about["comment"]],
                [:note, about["own note"]]]
        rows.reject { |_, text| text.to_s.empty? }.map { |is, text| { is: is, text: text } }
      end

      def rest(document)
        grades = document["grades"].map { |grade| grade.map { |name, value| "#{name}: #{value}" }.join(", ") }
        seen = document["looked_at"].map { |entry| entry.values.map(&:to_s).reject(&:empty?).join(", ") }
        [["Grades", grades], ["Who looked at this, or changed a mark", seen]].reject { |_, lines| lines.empty? }
                                                                             .map { |heading, lines| page(heading, lines) }
      end
    end
  end
end

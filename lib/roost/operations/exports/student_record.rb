# frozen_string_literal: true

module Roost
  module Operations
    # Everything that is kept about a student, as far as whoever asks may see it: the keeper all of it, another teacher what
    # happened with her.
    class StudentRecord
      MOST = 1_000 # sessions, the latest

      # account_id:: who asks; student:: Core::Student; keeper:: whether all teachers' sessions are in it
      Subject = Struct.new(:account_id, :student, :classes, :keeper, keyword_init: true)

      # @return [Subject, nil] nil unless she teaches a class that the student is in, or keeps the school
      def subject(account_id, student_id)
        students = Store::Students.new
        classes = students.classes_of(student_id)
        keeper = Store::School.new.keeper?(account_id)
        known = classes.find { |id, _| keeper || Store::Classes.new.find(account_id, id) }
        student = known && students.find(known.first, student_id)
        student && Subject.new(account_id: account_id, student: student, classes: classes.map(&:last), keeper: keeper).freeze
      end

      # @param subject [Subject]
      # @yieldparam done [Integer] sessions; parts [Integer] of how many
      # @return [Hash] as it is written down
      def document(subject)
        sessions = sessions(subject)
        held = sessions.each_with_index.map do |(row, seat_id), at|
          yield at, sessions.length if block_given?
          session(row, seat_id)
        end
        { "school" => Store::School.new.settings.name, "student" => about(subject.student), "classes" => subject.classes,
          "complete" => subject.keeper, "sessions" => held, "grades" => grades(subject),
          "looked_at" => looked_at(subject.student.id) }
      end

      private

      def sessions(subject)
        found = Store::PastSessions.new
        subject.keeper ? found.with(subject.student.id, MOST) : found.of_student(subject.account_id, subject.student.id, MOST)
      end

      def about(student)
        { "name" => student.name, "shown as" => student.shown_name, "number" => student.number.to_s,
          "extra time" => student.time_factor, "notes of teachers" => student.notes.to_s }
      end

      def session(row, seat_id)
        kept = Store::Records.new
        record = kept.of(row, **kept.parts_at_seat(row, seat_id).except(:hand))
        devices = Store::Seats.new.devices([seat_id]).fetch(seat_id, [])
        { "title" => row.title, "class" => row.class_name, "kind" => row.self_paced ? "assignment" : "lesson",
          "date" => time(row.created_at.to_f), "name in it" => record.seat(seat_id)&.name,
          "devices" => devices.map { |device| device[:browser] }, "answers" => answers(record, seat_id) }
      end

      def answers(record, seat_id)
        comments = Store::Comments.new.of([seat_id])
        notes = Store::Notes.new.of_seat(seat_id)
        results = Core::Analysis::Results.new(record)
        line = results.line_of(seat_id)
        results.slides.map do |slide|
          written = comments.fetch([seat_id, slide.id], Core::Session::Comments::NONE)
          seconds = record.seconds(slide.id)[seat_id]
          { "question" => slide.name, "kind" => slide.prompt.label, **given(slide.prompt, line.outcomes[slide.id]),
            "seconds" => seconds&.round(1), "comment" => written.texts.values.join("\n"),
            "own note" => notes[slide.id]&.text }.compact
        end
      end

      def given(prompt, outcome)
        answer = outcome.answer
        said = answer.readable? ? prompt.plain(answer.value) : answer.typed_text if answer
        { "given" => said, "outcome" => outcome.status.to_s.tr("_", " "), "mark" => outcome.mark&.to_f&.round(4),
          "points" => outcome.points, "handed in" => answer && time(answer.received_at) }
      end

      def grades(subject)
        whose = subject.keeper ? nil : subject.account_id
        Store::Gradebooks.new.of_student(subject.student.id, account_id: whose).map do |column, entry|
          { "column" => column.title, "date" => column.on_date&.to_s, "points" => entry.points&.to_f,
            "possible" => column.possible&.to_f, "excused" => (true if entry.excused) }.compact
        end
      end

      def looked_at(student_id)
        Store::LookedAt.new.latest(student_id: student_id).map do |_, entry|
          { "when" => time(entry.at), "who" => entry.by, "what" => entry.what.to_s, "of" => entry.said }
        end
      end

      def time(epoch) = SchoolClock.here.local(epoch).strftime("%Y-%m-%d %H:%M")
    end
  end
end

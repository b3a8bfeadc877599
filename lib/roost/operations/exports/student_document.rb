# frozen_string_literal: true

module Roost
  module Operations
    # Everything that is kept about a student: themselves, what they gave and wrote in each session with all attempts, what was
    # written and drawn beside it, points in gradebooks, and who looked at that.
    class StudentDocument
      # @param subject [StudentRecord::Subject]
      # @yieldparam slide [Core::Slide]; value [Hash] of an answer
      # @yieldreturn [Hash] what else of the answer stands in it than words
      def initialize(subject, &whole)
        @subject = subject
        @whole = whole
      end

      # @param progress [#call, nil] is told how many sessions are done, of how many
      # @return [Hash] as it is written down
      def to_h(progress = nil)
        held = sessions.each_with_index.map do |(row, seat_id), at|
          progress&.call(at, sessions.length)
          session(row, seat_id)
        end
        { "school" => Store::School.new.settings.name, "student" => about(student), "classes" => @subject.classes,
          "complete" => @subject.keeper, "sessions" => held, "grades" => grades, "looked_at" => looked_at }
      end

      private

      def student = @subject.student

      def sessions
        @sessions ||= Store::PastSessions.new.then do |found|
          most = StudentRecord::MOST
          @subject.keeper ? found.with(student.id, most) : found.of_student(@subject.account_id, student.id, most)
        end
      end

      def about(student)
        { "name" => student.name, "shown as" => student.shown_name, "number" => student.number.to_s,
          "group" => student.group.to_s, "extra time" => student.time_factor, "notes of teachers" => student.notes.to_s }
      end

      def session(row, seat_id)
        kept = Store::Records.new
        record = kept.of(row, **kept.parts_at_seat(row, seat_id).except(:hand))
        devices = Store::Seats.new.devices([seat_id]).fetch(seat_id, [])
        { "title" => row.title, "class" => row.class_name, "kind" => row.self_paced ? "assignment" : "lesson",
          "date" => time(row.created_at.to_f), "name in it" => record.seat(seat_id)&.name,
          "devices" => devices.map { |device| device[:browser] }, "answers" => answers(record, seat_id),
          "other notes" => other_notes(record, seat_id) }
      end

      def answers(record, seat_id)
        more = beside(record.id, seat_id)
        results = Core::Analysis::Results.new(record)
        line = results.line_of(seat_id)
        results.slides.map do |slide|
          outcome = line.outcomes[slide.id]
          counted = record.attempt(slide.id, seat_id)
          { "question" => slide.name, "kind" => slide.prompt.label, **given(slide, outcome.answer),
            "outcome" => outcome.status.to_s.tr("_", " "), "mark" => outcome.mark&.to_f&.round(4), "points" => outcome.points,
            "seconds" => record.seconds(slide.id)[seat_id]&.round(1), **more.call(slide, counted),
            "other attempts" => others(record, slide, seat_id, counted) }.compact
        end
      end

      # On slides without a question.
      def other_notes(record, seat_id)
        asked = record.lesson.prompts.map(&:id)
        Store::Notes.new.of_seat(seat_id).except(*asked).values.map(&:text).reject(&:empty?)
      end

      # @return [Hash] what was given, in words and whole
      def given(slide, answer)
        return {} unless answer
        return { "given" => answer.typed_text, "handed in" => time(answer.received_at) } unless answer.readable?

        { "given" => slide.prompt.plain(answer.value), "handed in" => time(answer.received_at),
          **@whole.call(slide, answer.value) }
      end

      # @return [Array<Hash>, nil] at the same question, nil of none
      def others(record, slide, seat_id, counted)
        others = record.attempts(slide.id, seat_id).except(counted)
        others.map { |number, answer| { "attempt" => number, **given(slide, answer) } } if others.any?
      end

      # What was written and drawn beside answers.
      # @return [#call] of slide and attempt, gives Hash
      def beside(session_id, seat_id)
        comments = Store::Comments.new.of([seat_id])
        notes = Store::Notes.new.of_seat(seat_id)
        sent = Store::SentTexts.new.of([seat_id])
        levels = Store::HandMarks.new.levels(session_id, seat_id)
        drawn = Store::DrawnOn.new.of(session_id, seat_id)
        lambda do |slide, attempt|
          { "rubric" => rubric(slide.prompt.rubric, levels[slide.id]), "drawn on it" => drawn[[slide.id, attempt]],
            "comment" => comments[[seat_id, slide.id]]&.in_words(attempt), "own note" => notes[slide.id]&.text,
            "sent as typed, not counted" => sent[[seat_id, slide.id]] }
        end
      end

      # @return [Hash{String=>String}, nil] criterion to the level that was given
      def rubric(rubric, levels)
        return nil unless levels && rubric&.fits?(levels)

        rubric.criteria.zip(levels).to_h { |criterion, level| [criterion.name, criterion.levels[level].name] }
      end

      def grades
        whose = @subject.keeper ? nil : @subject.account_id
        Store::Gradebooks.new.of_student(student.id, account_id: whose).map do |column, entry|
          { "column" => column.title, "date" => column.on_date&.to_s, "points" => entry.points&.to_f,
            "possible" => column.possible&.to_f, "excused" => (true if entry.excused) }.compact
        end
      end

      def looked_at
        Store::LookedAt.new.latest(student_id: student.id).map do |_, entry|
          { "when" => time(entry.at), "who" => entry.by, "what" => entry.what.to_s, "of" => entry.said }
        end
      end

      def time(epoch) = SchoolClock.here.local(epoch).strftime("%Y-%m-%d %H:%M")
    end
  end
end

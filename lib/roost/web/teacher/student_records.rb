# frozen_string_literal: true

module Roost
  module Web
    # What is kept about one student: all of it as a file, and taking it out of past sessions.
    class StudentRecords < TeacherApp
      helpers ExportPages

      KINDS = { "json" => ["student_json", "JSON file"], "pdf" => %w[student_pdf PDF] }.freeze

      get "/:id/students/:student/record" do
        page("classes/record", title: "What is kept about #{student.name}", row: our_class, student: student,
                               removed: number("removed"), keeper: keeper?,
                               log: Store::LookedAt.new.latest(student_id: student.id))
      end

      get(%r{/(?<id>\d+)/students/(?<student>\d+)/record/(?<kind>json|pdf)}) do
        next part(params["kind"]) if htmx?

        redirect record_path, 303
      end

      post(%r{/(?<id>\d+)/students/(?<student>\d+)/record/(?<kind>json|pdf)}) do
        Operations::NoteLook.new.call(account_id, [student.id], :record)
        granted(Operations::MakeExport.new.start(account_id, KINDS.fetch(params["kind"]).first, student.id))
        redirect record_path, 303
      end

      get(%r{/(?<id>\d+)/students/(?<student>\d+)/record/(?<kind>json|pdf)\.file}) do
        kind = params["kind"]
        send_export(KINDS.fetch(kind).first, student.id, path: record_path, name: "#{file_name(student.name)}.#{kind}")
      end

      post "/:id/students/:student/forget" do
        many = granted(Operations::ForgetStudent.new.call(account_id, our_class.id, student.id))
        redirect "#{record_path}?removed=#{many}", 303
      end

      helpers do
        # One she teaches; any of the school for its keeper.
        def our_class
          classes = Store::Classes.new
          @our_class ||= classes.find(account_id, number("id")) ||
                         (keeper? && classes.of_school(account_id, number("id"))) || not_found
        end

        def student = @student ||= Store::Students.new.find(our_class.id, number("student")) || not_found

        def record_path = "/classes/#{our_class.id}/students/#{student.id}/record"

        # @param kind [String] of KINDS
        def part(kind)
          export, made = KINDS.fetch(kind)
          export_part(export, student.id, path: "#{record_path}/#{kind}", made: made)
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # One student of a class.
    class ClassStudents < TeacherApp
      helpers LessonPages, ClassCharts

      MOST_SESSIONS = 60

      get "/:id/students/:student" do
        Operations::NoteLook.new.call(account_id, [student.id], :page)
        page("classes/student", title: student.name, row: our_class, student: student,
                                classes: students.classes_of(student.id), saved: params["saved"],
                                sessions: Store::PastSessions.new.of_student(account_id, student.id, MOST_SESSIONS),
                                line: Operations::ClassOverTime.new.time(account_id, our_class.id).line_of(student.id),
                                pass: students.passes([student.id])[student.id], renewed: params["pass"] == "new")
      end

      post "/:id/students/:student" do
        granted(Operations::KeepStudent.new.change(account_id, number("id"), number("student"), params))
        redirect "/classes/#{number("id")}/students/#{number("student")}?saved=1", 303
      end

      post "/:id/students/:student/out" do
        out = params["out"] == "1"
        gone = Operations::KeepStudent.new.take_out(account_id, number("id"), number("student"), out: out) || not_found
        redirect "/classes/#{number("id")}#{"?out=#{gone.id}" if out}", 303
      end

      post "/:id/students/:student/pass" do
        renewed = students.passes([student.id]).any?
        Operations::StudentPasses.new.renew(account_id, our_class.id, student.id) || not_found
        redirect "/classes/#{our_class.id}/students/#{student.id}#{"?pass=new" if renewed}", 303
      end

      get "/:id/students/:student/delete" do
        page("classes/delete", title: "Delete #{student.name}", row: our_class, student: student,
                               classes: students.classes_of(student.id))
      end

      post "/:id/students/:student/delete" do
        deleted = params["deleted"] == "1"
        granted(Operations::KeepStudent.new.delete(account_id, number("id"), number("student"), deleted: deleted))
        redirect "/classes/#{number("id")}#{"?deleted=#{number("student")}" if deleted}", 303
      end

      helpers do
        def students = Store::Students.new

        def our_class = @our_class ||= Store::Classes.new.find(account_id, number("id")) || not_found

        def student = @student ||= students.find(our_class.id, number("student")) || not_found
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # A student's own page. The pass in the address is all it is known by; nobody is held up for another's wrong ones.
    class Pass < App
      get("/:pass") { |pass| own_page(pass) }

      post "/:pass/join" do |pass|
        student(pass)
        token = Operations::EnterByPass.new.call(pass, number("session"))
        halt 422, own_page(pass, refusal: token.reason) unless token.ok?
        redirect "/seat/#{token.value}", 303
      end

      # A copy of a session they had a seat in.
      get "/:pass/copies/:session" do |pass, session|
        student = student(pass)
        seat_id = Store::Seats.new.of_student(student.id, [whole(session).to_i]).values.first || not_found
        redirect Copies.path(seat_id), 303
      end

      helpers do
        def own_page(pass, refusal: nil)
          student = student(pass)
          page("front/own", title: student.shown_name, layout: "layouts/plain", bundle: "seat", student: student, pass: pass,
                            classes: Store::Students.new.classes_of(student.id).map(&:last),
                            sessions: Operations::EnterByPass.new.running(student), refusal: refusal,
                            tasks: Operations::OwnTasks.new.call(student),
                            results: Operations::OwnResults.new.call(student))
        end

        def student(pass)
          found = Operations::EnterByPass.student(pass[0, 40])
          found.ok? ? found.value : halt(*JoinLimits.unknown(request), error_page("That pass isn't known", found.reason))
        end
      end
    end
  end
end

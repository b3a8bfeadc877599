# frozen_string_literal: true

module Roost
  module Web
    # A student's own page. The pass in the address is all it is known by.
    class Pass < App
      TOO_MANY = "Too many wrong passes from here. Wait a minute, then look at your card again."

      get("/:pass") { |pass| own_page(pass) }

      post "/:pass/join" do |pass|
        student(pass)
        token = Operations::EnterByPass.new.call(pass, number("session"))
        halt 422, own_page(pass, refusal: token.reason) unless token.ok?
        redirect "/seat/#{token.value}", 303
      end

      helpers do
        def own_page(pass, refusal: nil)
          student = student(pass)
          page("front/own", title: student.shown_name, layout: "layouts/plain", bundle: "seat", student: student, pass: pass,
                            classes: Store::Students.new.classes_of(student.id).map(&:last),
                            sessions: Operations::EnterByPass.new.running(student), refusal: refusal)
        end

        def student(pass)
          address = Address.of(request)
          shut = JoinLimits.shut_out?(address, Core::StudentPass.read(pass))
          halt 429, error_page("One moment", TOO_MANY) if shut

          found = Operations::EnterByPass.student(pass[0, 40])
          return JoinLimits.trust(address, Core::StudentPass.read(pass)) && found.value if found.ok?

          JoinLimits.wrong(address)
          halt 404, error_page("That pass isn't known", found.reason)
        end
      end
    end
  end
end

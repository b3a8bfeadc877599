# frozen_string_literal: true

module Roost
  module Web
    # The school's settings and who teaches here: the keeper's page.
    class School < TeacherApp
      before { not_found unless Store::School.new.keeper?(account_id) }

      get("/") { school_page }

      # Who looked at what is kept about students, and changed marks.
      get "/log" do
        page("school/log", title: "Who looked at students", log: Store::LookedAt.new.latest(before: number("before")))
      end

      # What is kept about a student, by whoever they are taught.
      get "/students/:student" do
        class_id, = Store::Students.new.classes_of(number("student") || 0).first || not_found
        redirect "/classes/#{class_id}/students/#{number("student")}/record", 303
      end

      post "/" do
        saved = Operations::KeepSchool.new.change(account_id, params) || not_found
        redirect "/school?saved=1", 303 if saved.ok?

        status 422
        school_page(given: given(params), reason: saved.reason)
      end

      # Into its place on the page, where what is typed meanwhile stays.
      post("/invitations") { invited(text("email").to_s) }

      post("/teachers/:teacher/link") { invited(Store::Accounts.new.email(number("teacher")) || not_found) }

      post "/teachers/:teacher/stop" do
        granted(Operations::KeepSchool.new.stop(account_id, number("teacher"), stopped: params["stopped"] == "1"))
        redirect "/school#teachers", 303
      end

      post "/teachers/:teacher/keeper" do
        granted(Operations::KeepSchool.new.pass_on(account_id, number("teacher")))
        redirect "/account", 303
      end

      post "/teachers/:teacher/hand-over" do
        granted(Operations::KeepSchool.new.hand_over(account_id, number("teacher"), number("to")))
        redirect "/school#teachers", 303
      end

      helpers do
        def school_page(given: Store::School.new.settings.to_form, reason: nil, invited: "")
          page("school/index", title: "School", given: given, reason: reason, teachers: Store::School.new.teachers,
                               invited: invited, saved: params["saved"])
        end

        # What was typed, else what is kept.
        def given(form)
          Store::School.new.settings.to_form.to_h { |name, kept| [name, form[name].is_a?(String) ? form[name] : kept] }
        end

        def invited(email)
          made = Operations::KeepSchool.new.invite(account_id, email) || not_found
          status 422 unless made.ok?
          said = partial("school/invited", link: made.value, reason: made.reason, sent_to: email.strip)
          Part.asked?(env) ? said : school_page(invited: said)
        end
      end
    end
  end
end

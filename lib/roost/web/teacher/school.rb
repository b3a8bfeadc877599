# frozen_string_literal: true

module Roost
  module Web
    # The school's settings and who teaches here: the keeper's page.
    class School < TeacherApp
      before { not_found unless Store::School.new.keeper?(account_id) }

      get("/") { school_page }

      post "/" do
        granted(Operations::KeepSchool.new.change(account_id, params))
        redirect "/school?saved=1", 303
      end

      post("/invitations") { school_page(link: granted(Operations::KeepSchool.new.invite(account_id, text("email")))) }

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
        def school_page(link: nil)
          store = Store::School.new
          page("school/index", title: "The school", school: store.settings, teachers: store.teachers, link: link,
                               sent_to: text("email").to_s, saved: params["saved"])
        end
      end
    end
  end
end

# frozen_string_literal: true

module Roost
  module Web
    # A teacher's own account: where she is signed in, and ending that.
    class Account < TeacherApp
      get "/" do
        page("account/index", title: "Your account", sign_ins: Store::SignIns.new.of(account_id), current: current)
      end

      # Ends one sign-in, or all but this one.
      post "/sign-ins/end" do
        Operations::EndSignIn.new.call(account_id, text("sign_in"), but: current)
        redirect "/account", 303
      end

      helpers do
        def current = env["roost.sign_in"]
      end
    end
  end
end

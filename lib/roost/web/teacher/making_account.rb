# frozen_string_literal: true

module Roost
  module Web
    # The second half of making an account, after the link in the mail was opened.
    module MakingAccount
      SHORTEST_PASSWORD = 10 # characters
      LONGEST_PASSWORD = 1024 # bytes

      # Finishes making an account: whoever has the mail chooses the password, so that nobody knows it who only typed the
      # address.
      def welcome(request)
        key = request.params["key"].to_s[0, 80]
        request.get { welcome_page(key) }
        request.post do
          sign_up = Operations::SignUp.new
          gone unless sign_up.waiting?(key)
          reason = password_refusal(request.params["password"])
          next welcome_page(key, reason) if reason

          email = sign_up.finish(key, rodauth.password_hash(request.params["password"])) || gone
          flash["notice"] = "Welcome to Amber Roost."
          rodauth.account_from_login(email)
          rodauth.login("welcome")
        end
      end

      def welcome_page(key, reason = nil)
        response.status = 422 if reason
        page("account/welcome", title: "Your account", layout: "layouts/account", key: key, reason: reason)
      end

      # @return [String, nil] what is wrong with a password, as the end of a sentence
      def password_refusal(password)
        return "is needed" unless password.is_a?(String) && !password.empty?
        return "is too long" if password.bytesize > LONGEST_PASSWORD

        "needs at least #{SHORTEST_PASSWORD} characters" if password.length < SHORTEST_PASSWORD
      end

      def gone
        flash["error"] = "That link isn't good any more. Sign in, or make the account again."
        request.redirect "/sign-in"
      end
    end
  end
end
